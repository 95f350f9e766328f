package api

import (
	"context"
	"net/http"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// PreviewIn is an unsaved document and edits on it.
type PreviewIn struct {
	Doc   Doc         `json:"doc"`
	Edits []edit.Edit `json:"edits" maxItems:"500"`
}

// Preview is the document after the edits, with its plan.
type Preview struct {
	Doc  Doc   `json:"doc"`
	Plan *Plan `json:"plan"`
}

// PieceAnswer is a piece with its plan.
type PieceAnswer struct {
	Piece Piece `json:"piece"`
	Plan  *Plan `json:"plan"`
}

func pieceAnswer(p work.Piece, pl *plan.Plan) PieceAnswer { return PieceAnswer{pieceOf(p), planOf(pl)} }

type versionIn struct {
	ID   string `path:"id"`
	Body struct {
		Version int `json:"version"`
	}
}

type nameIn struct {
	ID   string `path:"id"`
	Body struct {
		Name string `json:"name" doc:"empty: that of the original, counted"`
	}
}

type listIn struct {
	Archived bool `query:"archived"`
}

type fileOut struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func (h *handlers) pieces(api huma.API) {
	huma.Register(api, op("listPieces", http.MethodGet, "/pieces", "Pieces of work, newest first"),
		func(ctx context.Context, in *listIn) (*body[Listed[Piece]], error) {
			v, aside, err := h.work.Pieces(ctx, in.Archived)
			return answer(ctx, h, listed(v, aside, pieceOf), err)
		})
	huma.Register(api, op("createPiece", http.MethodPost, "/pieces", "A new piece"),
		func(ctx context.Context, in *body[work.NewPiece]) (*body[PieceAnswer], error) {
			p, pl, err := h.work.StartPiece(ctx, in.Body)
			return answer(ctx, h, pieceAnswer(p, pl), err)
		})
	huma.Register(api, op("getPiece", http.MethodGet, "/pieces/{id}", "A piece with its plan"),
		func(ctx context.Context, in *idIn) (*body[PieceAnswer], error) {
			p, err := h.work.Piece(ctx, in.ID)
			if err != nil {
				return answer(ctx, h, PieceAnswer{}, err)
			}
			pl, err := h.work.Plan(ctx, p.Doc)
			return answer(ctx, h, pieceAnswer(p, pl), err)
		})
	huma.Register(api, op("editPiece", http.MethodPatch, "/pieces/{id}", "Save edits of a piece"),
		func(ctx context.Context, in *versionedEdits) (*body[PieceAnswer], error) {
			p, pl, err := h.work.SavePiece(ctx, in.ID, in.Body.Version, in.Body.Edits)
			return answer(ctx, h, pieceAnswer(p, pl), err)
		})
	for name, by := range map[string]int{"undo": -1, "redo": 1} {
		huma.Register(api, op(name+"Piece", http.MethodPost, "/pieces/{id}/"+name, name+" one step"),
			func(ctx context.Context, in *versionIn) (*body[PieceAnswer], error) {
				p, pl, err := h.work.Undo(ctx, in.ID, in.Body.Version, by)
				return answer(ctx, h, pieceAnswer(p, pl), err)
			})
	}
	huma.Register(api, op("duplicatePiece", http.MethodPost, "/pieces/{id}/duplicate", "Copy a piece under a new name"),
		func(ctx context.Context, in *nameIn) (*body[PieceAnswer], error) {
			p, pl, err := h.work.DuplicatePiece(ctx, in.ID, in.Body.Name)
			return answer(ctx, h, pieceAnswer(p, pl), err)
		})
	for name, archived := range map[string]bool{"archive": true, "restore": false} {
		huma.Register(api, op(name+"Piece", http.MethodPost, "/pieces/{id}/"+name, name+" a piece"),
			func(ctx context.Context, in *idIn) (*body[Piece], error) {
				p, err := h.work.ArchivePiece(ctx, in.ID, archived)
				return answer(ctx, h, pieceOf(p), err)
			})
	}
	trace := op("traceOutline", http.MethodPost, "/pieces/{id}/outline", "Take the outline of a drawing (SVG or DXF)")
	trace.MaxBodyBytes = maxDrawing
	huma.Register(api, trace, func(ctx context.Context, in *traceIn) (*body[PieceAnswer], error) {
		p, pl, err := h.work.TraceOutline(ctx, in.ID, in.Body.Version, in.Body.File)
		return answer(ctx, h, pieceAnswer(p, pl), err)
	})
	picture := op("addPicture", http.MethodPost, "/pieces/{id}/picture", "Put a PNG or JPEG behind the outline")
	picture.MaxBodyBytes = work.MaxPictureBytes + 1
	huma.Register(api, picture, func(ctx context.Context, in *pictureIn) (*body[PieceAnswer], error) {
		p, pl, err := h.work.AddPicture(ctx, in.ID, in.Version, in.RawBody)
		return answer(ctx, h, pieceAnswer(p, pl), err)
	})
	huma.Register(api, op("getPicture", http.MethodGet, "/pictures/{id}", "The bytes of a picture"), h.picture)
	huma.Register(api, op("exportPiece", http.MethodGet, "/pieces/{id}/export/{format}", "The blade of a piece in an open format"),
		func(ctx context.Context, in *exportIn) (*fileOut, error) {
			return h.ofPiece(ctx, in.ID, Format(in.Format))
		})
	huma.Register(api, op("benchCard", http.MethodGet, "/pieces/{id}/heats.pdf", "Every heat in order, a line each with its sketch"),
		func(ctx context.Context, in *idIn) (*fileOut, error) { return h.ofPiece(ctx, in.ID, Bench) })
	huma.Register(api, op("pieceSolid", http.MethodGet, "/pieces/{id}/solid", "The piece in the round: after a heat, or 0 the forged shape"), h.solid)
	huma.Register(api, op("heatsTable", http.MethodGet, "/pieces/{id}/heats.csv", "Every heat in order as CSV"),
		func(ctx context.Context, in *idIn) (*fileOut, error) { return h.ofPiece(ctx, in.ID, Heats) })
	huma.Register(api, op("gauges", http.MethodGet, "/pieces/{id}/gauges.pdf", "Lengths, slots and template at 1:1, to cut out and pin by the anvil"),
		func(ctx context.Context, in *idIn) (*fileOut, error) { return h.ofPiece(ctx, in.ID, Gauges) })
	for _, p := range []struct {
		id, path, about string
		format          Format
	}{
		{"fittings", "fittings.pdf", "Everything that is cut for handle and sheath at 1:1", FittingsPDF},
		{"fittingsSvg", "fittings.svg", "The same as outlines", FittingsSVG},
		{"fittingsDxf", "fittings.dxf", "The same for a cutter", FittingsDXF},
		{"customer", "customer.pdf", "One page for the customer, without the shop's figures", ForCustomer},
	} {
		huma.Register(api, op(p.id, http.MethodGet, "/pieces/{id}/"+p.path, p.about),
			func(ctx context.Context, in *idIn) (*fileOut, error) { return h.ofPiece(ctx, in.ID, p.format) })
	}
	huma.Register(api, op("pieceCard", http.MethodGet, "/pieces/{id}/card.pdf", "One page to take to the fire"),
		func(ctx context.Context, in *idIn) (*fileOut, error) { return h.ofPiece(ctx, in.ID, Card) })
}

type pictureIn struct {
	ID      string `path:"id"`
	Version int    `query:"version"`
	RawBody []byte `contentType:"application/octet-stream"`
}

type pictureOut struct {
	ContentType string `header:"Content-Type"`
	Cache       string `header:"Cache-Control"`
	Body        []byte
}

// picture never changes under its id.
func (h *handlers) picture(ctx context.Context, in *idIn) (*pictureOut, error) {
	data, mime, err := h.work.PictureData(ctx, in.ID)
	if err != nil {
		return nil, fail(ctx, err, "")
	}
	return &pictureOut{ContentType: mime, Cache: "private, max-age=31536000, immutable", Body: data}, nil
}

type traceIn struct {
	ID   string `path:"id"`
	Body struct {
		Version int              `json:"version"`
		File    work.OutlineFile `json:"file"`
	}
}

// maxDrawing bounds a request with a drawing in it.
const maxDrawing = 10 << 20

type solidIn struct {
	ID   string `path:"id"`
	Heat int    `query:"heat" minimum:"0"`
}

// Solid is a surface of triangles: vertices as x, y, z one after the other (mm),
// triangles as three places of vertices each; with the temperature at each
// vertex, °C.
type Solid struct {
	Vertices  []float64 `json:"vertices"`
	Triangles []int     `json:"triangles"`
	TempC     []float64 `json:"tempC"`
}

func (h *handlers) solid(ctx context.Context, in *solidIn) (*body[Solid], error) {
	p, err := h.work.Piece(ctx, in.ID)
	if err != nil {
		return answer(ctx, h, Solid{}, err)
	}
	pl, err := h.work.Plan(ctx, p.Doc)
	if err != nil {
		return answer(ctx, h, Solid{}, err)
	}
	stations := pl.Drawing.Forged
	if in.Heat > len(pl.Heats) {
		return nil, problem(http.StatusNotFound, "problem.notFound", nil)
	}
	if in.Heat > 0 {
		stations = pl.Heats[in.Heat-1].Shape
	}
	m, temps := figure.Solid(stations)
	out := solidOf(m)
	out.TempC = temps
	return answer(ctx, h, out, nil)
}

// solidOf is a mesh as it is sent, cold.
func solidOf(m blade.Mesh) Solid {
	out := Solid{Vertices: make([]float64, 0, 3*len(m.Vertices)), Triangles: make([]int, 0, 3*len(m.Triangles)), TempC: make([]float64, len(m.Vertices))}
	for _, v := range m.Vertices {
		out.Vertices = append(out.Vertices, v[:]...)
	}
	for _, t := range m.Triangles {
		out.Triangles = append(out.Triangles, t[:]...)
	}
	return out
}
