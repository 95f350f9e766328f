package api

import (
	"context"
	"net/http"

	"coldember/internal/doc"
	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// FileIn is a file that a pattern is read from: JSON whole, or the outline of a drawing.
type FileIn struct {
	Name   string           `json:"name" doc:"of a drawing's pattern; JSON has its own"`
	Format string           `json:"format" enum:"json,svg,dxf"`
	Text   string           `json:"text" doc:"of a JSON file"`
	Drawn  work.OutlineFile `json:"drawn"`
}

// ReadPattern is the pattern that a file has. Errors are *edit.InvalidError or
// *export.FileError.
func ReadPattern(f FileIn) (doc.Pattern, error) {
	if f.Format != "json" {
		return work.PatternOfOutline(f.Name, f.Drawn)
	}
	p, err := export.ReadPattern([]byte(f.Text))
	return doc.Pattern{Name: p.Name, Tags: p.Tags, Design: p.Design, Allowances: p.Allowances}, err
}

// ScanPattern is the pattern in a picture of its printed page. Errors are those of ReadPattern.
func ScanPattern(picture []byte) (doc.Pattern, error) {
	img, err := work.ReadPicture(picture)
	if err != nil {
		return doc.Pattern{}, err
	}
	text, err := export.ScanCode(img)
	if err != nil {
		return doc.Pattern{}, err
	}
	return ReadPattern(FileIn{Format: "json", Text: text})
}

func (h *handlers) exchange(api huma.API) {
	read := op("readPattern", http.MethodPost, "/patterns/file", "Read a pattern from a file into the library")
	read.MaxBodyBytes = maxDrawing
	huma.Register(api, read, func(ctx context.Context, in *body[FileIn]) (*body[Pattern], error) {
		d, err := ReadPattern(in.Body)
		if err != nil {
			return answer(ctx, h, Pattern{}, err)
		}
		v, err := h.work.AddPattern(ctx, d)
		return answer(ctx, h, patternOf(v), err)
	})
	scan := op("scanPattern", http.MethodPost, "/patterns/scan", "Read a pattern from a picture of its printed page into the library")
	scan.MaxBodyBytes = work.MaxPictureBytes
	huma.Register(api, scan, func(ctx context.Context, in *rawIn) (*body[Pattern], error) {
		d, err := ScanPattern(in.RawBody)
		if err != nil {
			return answer(ctx, h, Pattern{}, err)
		}
		v, err := h.work.AddPattern(ctx, d)
		return answer(ctx, h, patternOf(v), err)
	})
	huma.Register(api, op("duplicatePattern", http.MethodPost, "/patterns/{id}/duplicate", "A copy of a pattern, its name counted"),
		func(ctx context.Context, in *idIn) (*body[Pattern], error) {
			v, err := h.work.DuplicatePattern(ctx, in.ID)
			return answer(ctx, h, patternOf(v), err)
		})
	huma.Register(api, op("exportPattern", http.MethodGet, "/patterns/{id}/export/{format}", "The blade of a pattern in an open format"), h.ofPattern)
}
