package api

import (
	"bytes"
	"context"
	"net/http"

	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/danielgtaylor/huma/v2"
)

// sharedFile is a piece of work as the ZIP that goes to another shop.
func sharedFile(ctx context.Context, w *work.Work, id string) (Paper, error) {
	schema, err := SharedSchema()
	if err != nil {
		return Paper{}, err
	}
	var b bytes.Buffer
	err = w.Share(ctx, id, schema, &b)
	return Paper{File: export.File{Data: b.Bytes(), ContentType: "application/zip"}, Suffix: ".zip"}, err
}

// share is a piece of work, out and in.
func (h *handlers) share(api huma.API) {
	huma.Register(api, op("sharePiece", http.MethodGet, "/pieces/{id}/share.zip", "A piece of work with its pattern, stock, plans, log and pictures, as a ZIP of open files for another shop"),
		func(ctx context.Context, in *idIn) (*fileOut, error) { return h.ofPiece(ctx, in.ID, ForSharing) })
	take := op("takeShared", http.MethodPost, "/pieces/shared", "Take a piece of work that another shop shared")
	take.MaxBodyBytes = work.MaxSharedBytes
	huma.Register(api, take, func(ctx context.Context, in *rawIn) (*body[Piece], error) {
		p, err := h.work.TakeShared(ctx, in.RawBody)
		return answer(ctx, h, pieceOf(p), err)
	})
}
