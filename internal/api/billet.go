package api

import (
	"context"
	"math"
	"net/http"

	"coldember/core/billet"
	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// FaceIn asks for the faces of the blade of a document.
type FaceIn struct {
	Doc      Doc     `json:"doc"`
	DeeperMm float64 `json:"deeperMm" doc:"ground off each face beyond the plan; negative: left on"`
	Ground   bool    `json:"ground,omitempty" doc:"bevels ground into a flat bar instead of forged"`
	HollowMm float64 `json:"hollowMm,omitempty" doc:"so deep in each face is a strip hollowed besides"`
	Nx       int     `json:"nx"`
	Ny       int     `json:"ny"`
}

// Faces are both faces as they etch; they are left out where the bar has no layers.
type Faces struct {
	Front *billet.Etched `json:"front,omitempty"`
	Back  *billet.Etched `json:"back,omitempty"`
	Core  *billet.Core   `json:"core,omitempty" doc:"of a straight bar laid about a middle layer"`
	// Seam is where the edge bar ends lowest.
	Seam *work.Seam `json:"seam,omitempty"`
	// EatenLayers go from each face with the scale of the heats.
	EatenLayers float64 `json:"eatenLayers,omitempty"`
}

type faceFileIn struct {
	ID       string  `path:"id"`
	DeeperMm float64 `query:"deeperMm"`
	Ground   bool    `query:"ground"`
}

// A picture of a face has so many points a millimetre, and no more than so many.
const (
	facePxPerMm = 8
	facePxMost  = 2400
)

func (h *handlers) billet(api huma.API) {
	huma.Register(api, op("layBillet", http.MethodPost, "/billet", "What a layered billet comes to in the shop's fire, step by step"),
		func(ctx context.Context, in *body[billet.Recipe]) (*body[billet.Outcome], error) {
			o, err := h.work.BilletOf(ctx, in.Body)
			return answer(ctx, h, o, err)
		})
	huma.Register(api, op("planFace", http.MethodPost, "/plan/face", "Both faces of the finished blade of a document as they etch"),
		func(ctx context.Context, in *body[FaceIn]) (*body[Faces], error) {
			b := in.Body
			e, ok, err := h.work.Faces(ctx, b.Doc.doc(), work.Face{DeeperMm: b.DeeperMm, Ground: b.Ground, HollowMm: b.HollowMm, Nx: b.Nx, Ny: b.Ny})
			out := Faces{}
			if ok {
				out = Faces{&e.Front, &e.Back, e.Core, e.Seam, e.EatenLayers}
			}
			return answer(ctx, h, out, err)
		})
	huma.Register(api, op("planWishes", http.MethodPost, "/plan/wishes", "What the faces of a twisted blade can be made to show, and what that takes"),
		func(ctx context.Context, in *body[Doc]) (*body[[]billet.Wish], error) {
			v, err := h.work.Wishes(ctx, in.Body.doc())
			return answer(ctx, h, v, err)
		})
	huma.Register(api, op("planFaceSolid", http.MethodPost, "/plan/face/solid", "The finished blade of a document in the round, for its faces to be laid on"),
		func(ctx context.Context, in *body[Doc]) (*body[Solid], error) {
			m, err := h.work.Finished(ctx, in.Body.doc())
			return answer(ctx, h, solidOf(m), err)
		})
	picture := func(ctx context.Context, in *faceFileIn) (name string, front, back billet.Etched, lengthMm float64, err error) {
		p, err := h.work.Piece(ctx, in.ID)
		if err != nil {
			return "", front, back, 0, err
		}
		d := &p.Doc.Request.Design
		nx := int(math.Min(facePxMost, math.Max(60, facePxPerMm*d.LengthMm)))
		ny := max(20, min(600, int(float64(nx)/d.LengthMm*d.HeightMm)))
		e, ok, err := h.work.Faces(ctx, p.Doc, work.Face{DeeperMm: in.DeeperMm, Ground: in.Ground, Nx: nx, Ny: ny})
		if err == nil && !ok {
			err = work.ErrNotFound
		}
		return p.Doc.Name, e.Front, e.Back, d.LengthMm, err
	}
	huma.Register(api, op("facePng", http.MethodGet, "/pieces/{id}/face.png", "The same as a picture"),
		func(ctx context.Context, in *faceFileIn) (*fileOut, error) {
			name, front, back, _, err := picture(ctx, in)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			data, err := export.FacePNG(front, back)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			return &fileOut{ContentType: "image/png", Disposition: download(name, named("face", ".png")), Body: data}, nil
		})
	huma.Register(api, op("faceSvg", http.MethodGet, "/pieces/{id}/face.svg", "The same at true size"),
		func(ctx context.Context, in *faceFileIn) (*fileOut, error) {
			name, front, back, length, err := picture(ctx, in)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			data, err := export.FaceSVG(name, front, back, length)
			if err != nil {
				return nil, fail(ctx, err, "")
			}
			return &fileOut{ContentType: "image/svg+xml", Disposition: download(name, named("face", ".svg")), Body: data}, nil
		})
}
