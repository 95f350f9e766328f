package work

import (
	"context"
	"errors"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/planner"
	"coldember/internal/doc"
	"coldember/internal/edit"
)

// BilletOf is what a recipe comes to in the shop's fire. Errors are *edit.InvalidError.
func (w *Work) BilletOf(ctx context.Context, r billet.Recipe) (billet.Outcome, error) {
	shop, err := w.Shop(ctx)
	if err != nil {
		return billet.Outcome{}, err
	}
	c := fact.NewCheck()
	r.Validate(c)
	if err := c.Err(); err != nil {
		return billet.Outcome{}, edit.Invalid(err)
	}
	out, err := r.Out(shop.Doc.Fire)
	if err != nil {
		return out, billetError(err)
	}
	if face, ok := out.BarFace(); ok {
		out.Face = &face
	}
	setup := forge.Setup{Smith: forge.NewSmith(forge.Steady), Fire: shop.Doc.Fire}
	if len(shop.Doc.Smiths) > 0 {
		setup.Smith = shop.Doc.Smiths[0].Smith
	}
	if g, ok := out.Grade(); ok {
		setup.Steel = g
		l := r.Labour(ctx, &out, setup, machineOf(setup.Smith, r.By))
		out.Labour = &l
	}
	return out, ctx.Err()
}

// machineOf is a smith's own machine of a kind, or a usual one; nil is the hand.
func machineOf(s forge.Smith, kind forge.MachineKind) *forge.Machine {
	switch {
	case kind == "":
		return nil
	case s.Machine != nil && s.Machine.Kind == kind:
		return s.Machine
	}
	return forge.NewMachine(kind)
}

func billetError(err error) error {
	var wrong *billet.Error
	if errors.As(err, &wrong) {
		return edit.One("billet."+wrong.Field, wrong.Code, fact.Figures{"limit": wrong.Limit, "limitMm": wrong.Limit, "step": float64(wrong.Step + 1)}, "")
	}
	return err
}

// Face asks for the faces of the blade of a document as they etch.
type Face struct {
	DeeperMm float64 // ground off each face beyond the plan; negative: left on
	Ground   bool    // bevels ground into a flat bar
	HollowMm float64 // deep in each face is a strip hollowed besides; 0: none
	Nx, Ny   int
}

// Etching is both faces of a blade, and where its core comes out where it has one.
type Etching struct {
	Front, Back billet.Etched
	Core        *billet.Core
	EatenLayers float64 // of each face, by the scale of the heats
	Seam        *Seam   // with the edge bar, where there is one
}

// Seam is where the edge bar ends lowest: above the finished edge, and from the point.
type Seam struct {
	UpMm float64 `json:"upMm"`
	AtMm float64 `json:"atMm"`
}

// Most points of a face along and across, and by how much deeper it may be ground.
const (
	mostAlong  = 2400
	mostAcross = 600
	mostDeeper = 5
)

// Faces are both faces of the blade of a document as they etch; ok is false where its bar has no
// layers. Errors are *edit.InvalidError.
func (w *Work) Faces(ctx context.Context, d doc.Piece, ask Face) (out Etching, ok bool, err error) {
	c := fact.NewCheck()
	c.Range("nx", float64(ask.Nx), 10, mostAlong)
	c.Range("ny", float64(ask.Ny), 4, mostAcross)
	c.Range("deeperMm", ask.DeeperMm, -mostDeeper, mostDeeper)
	c.Range("hollowMm", ask.HollowMm, 0, mostDeeper)
	if err := c.Err(); err != nil {
		return out, false, edit.Invalid(err)
	}
	if ask.HollowMm > 0 {
		d.Request.Design = planner.HollowOf(d.Request.Design, ask.HollowMm)
	}
	p, err := w.Plan(ctx, d)
	if err != nil {
		return out, false, err
	}
	b, ok, err := planner.Etched(&d.Request, p, ask.DeeperMm, ask.Ground)
	if err != nil || !ok {
		return out, false, billetError(err)
	}
	out.Front, out.Back = b.Faces(ask.Nx, ask.Ny)
	out.EatenLayers = b.EatenLayers()
	if up, at, ok := b.Seam(); ok {
		out.Seam = &Seam{up, at}
	}
	if c, ok := b.CoreOf(); ok {
		out.Core = &c
	}
	return out, true, nil
}

// Finished is the finished blade of a document in the round, flat.
func (w *Work) Finished(ctx context.Context, d doc.Piece) (blade.Mesh, error) {
	p, err := w.Plan(ctx, d)
	if err != nil {
		return blade.Mesh{}, err
	}
	f, err := planner.FinishWork(&d.Request, p)
	if err != nil {
		return blade.Mesh{}, err
	}
	return f.Steel.Finished.Mesh(), nil
}

// Wishes are what the blade of a document can be made to show; none where its bar is not twisted.
func (w *Work) Wishes(ctx context.Context, d doc.Piece) ([]billet.Wish, error) {
	p, err := w.Plan(ctx, d)
	if err != nil {
		return nil, err
	}
	out, err := planner.Wishes(&d.Request, p)
	return out, billetError(err)
}
