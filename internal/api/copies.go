package api

import (
	"bytes"
	"context"
	"net/http"
	"time"

	"coldember/internal/text"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// Copy is a copy of the whole file.
type Copy struct {
	Name     string    `json:"name"`
	Why      string    `json:"why" enum:"byHand,daily,beforeUpdate,beforeRestore"`
	At       time.Time `json:"at"`
	Pieces   int       `json:"pieces"`
	Patterns int       `json:"patterns"`
	Items    int       `json:"items" doc:"on the rack"`
	NewestAt time.Time `json:"newestAt" doc:"when something in it was last saved"`
	Bytes    int64     `json:"bytes"`
	Wrong    string    `json:"wrong,omitempty" doc:"why it cannot be put back, in words"`
}

// Copies are all there are, newest first.
type Copies struct {
	Data   string `json:"data" doc:"the file that is in use"`
	Folder string `json:"folder"`
	Items  []Copy `json:"items"`
	Failed string `json:"failed,omitempty" doc:"why the last one that should be made by itself was not, in words"`
}

// Named names what was made.
type Named struct {
	Name string `json:"name"`
}

type copyIn struct {
	Name string `path:"name"`
}

func wordsOf(f *work.Fault) string {
	if f == nil {
		return ""
	}
	return text.Say(string(f.Code), map[string]string{"path": f.Path})
}

func copiesOf(c work.Copies) Copies {
	out := Copies{Data: c.Data, Folder: c.Folder, Items: []Copy{}, Failed: wordsOf(c.Failed)}
	for _, x := range c.Items {
		a := x.About
		out.Items = append(out.Items, Copy{
			Name: x.Name, Why: string(x.Why), At: x.At, Pieces: a.Pieces, Patterns: a.Patterns, Items: a.Items, NewestAt: a.NewestAt, Bytes: a.Bytes, Wrong: wordsOf(x.Fault),
		})
	}
	return out
}

type rawIn struct {
	RawBody []byte `contentType:"application/octet-stream"`
}

// archive is the whole shop, out and in.
func (h *handlers) archive(api huma.API) {
	huma.Register(api, op("packShop", http.MethodGet, "/archive", "The whole shop as a ZIP of open files"),
		func(ctx context.Context, _ *struct{}) (*fileOut, error) {
			var b bytes.Buffer
			if err := h.work.Pack(ctx, &b); err != nil {
				return nil, fail(ctx, err, "")
			}
			name := "cold-ember-" + time.Now().Format(time.DateOnly) + ".zip"
			return &fileOut{ContentType: "application/zip", Disposition: `attachment; filename="` + name + `"`, Body: b.Bytes()}, nil
		})
	unpack := op("unpackShop", http.MethodPost, "/archive", "Put a whole shop that was packed in the place of this one, which is copied first")
	unpack.MaxBodyBytes = work.MaxArchiveBytes
	huma.Register(api, unpack, func(ctx context.Context, in *rawIn) (*body[Named], error) {
		name, err := h.work.Unpack(ctx, in.RawBody)
		return answer(ctx, h, Named{Name: name}, err)
	})
}

func (h *handlers) copies(api huma.API) {
	h.archive(api)
	huma.Register(api, op("listCopies", http.MethodGet, "/copies", "Copies of the whole file, and what is in each"),
		func(ctx context.Context, _ *struct{}) (*body[Copies], error) {
			c, err := h.work.Copies(ctx)
			return answer(ctx, h, copiesOf(c), err)
		})
	huma.Register(api, op("makeCopy", http.MethodPost, "/copies", "Copy the whole file now"),
		func(ctx context.Context, _ *struct{}) (*body[Named], error) {
			name, err := h.work.CopyNow(ctx, work.ByHand)
			return answer(ctx, h, Named{Name: name}, err)
		})
	huma.Register(api, op("putCopyBack", http.MethodPost, "/copies/{name}/restore", "Put a copy in the place of the file; what was there is kept"),
		func(ctx context.Context, in *copyIn) (*body[Named], error) {
			out, err := h.work.PutBack(ctx, in.Name)
			return answer(ctx, h, Named{Name: out}, err)
		})
}
