package work_test

import (
	"context"
	"testing"

	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTaperHandleHolesAndZonesAreEdited by the choices of the pages, one after
// the other on one piece.
func TestTaperHandleHolesAndZonesAreEdited(t *testing.T) {
	ctx := context.Background()
	w, _ := fresh(t)
	p := start(t, w)
	do := func(field, text string) work.Piece {
		t.Helper()
		next, _, err := w.SavePiece(ctx, p.ID, p.Version, typed(field, text))
		require.NoError(t, err, "%s %s", field, text)
		p = next
		return p
	}
	refused := func(field, text, code string) {
		t.Helper()
		_, _, err := w.SavePiece(ctx, p.ID, p.Version, typed(field, text))
		assert.Equal(t, code, codeOf(t, err), "%s %s", field, text)
	}
	length := p.Doc.Request.Design.LengthMm

	do("taper.add", "40mm")
	d := do("taper.0", "42mm; 3.1mm").Doc.Request.Design
	assert.InDelta(t, 42/length, d.TaperNodes[0].AtFraction, 1e-9)
	assert.InDelta(t, 3.1, d.TaperNodes[0].ThicknessMm, 1e-9)
	refused("taper.0", "42mm", "outline.pair")
	refused("taper.0", "4200mm; 3mm", "blade.nodesOrder")
	refused("taper.7", "42mm; 3mm", "outline.noNode")
	refused("taper.x", "42mm; 3mm", "field.unknown")
	refused("taper.add", "42mm", "outline.noNode")
	refused("taper.delete", "5", "outline.noNode")
	assert.Empty(t, do("taper.delete", "0").Doc.Request.Design.TaperNodes)

	assert.NotNil(t, do("design.handle", "drawn").Doc.Request.Design.Handle)
	d = do("design.hand", "90; 195mm").Doc.Request.Design
	assert.InDelta(t, 115, d.Handle.LengthMm, 1e-9)
	assert.InDelta(t, 90, d.Handle.HandBreadthMm, 1e-9)
	refused("design.hand", "190; 90", "field.hand")
	refused("design.hand", "90", "outline.pair")
	do("design.handle.guard.lengthMm", "5")
	refused("design.handle.material", "gold", "field.choice")
	do("design.hole", "add")
	assert.Len(t, do("design.hole", "add").Doc.Request.Design.Tang.Holes, 2)
	assert.InDelta(t, 4.5, do("design.tang.holes.1.diameterMm", "4.5").Doc.Request.Design.Tang.Holes[1].DiameterMm, 1e-9)
	refused("design.hole", "delete 9", "outline.noNode")
	assert.Len(t, do("design.hole", "delete 0").Doc.Request.Design.Tang.Holes, 1)

	z := do("allowances.zones", "own").Doc.Request.Allowances.Zones
	require.NotNil(t, z)
	assert.InDelta(t, p.Doc.Request.Allowances.FaceMm, z.TangFaceMm, 1e-9, "begins as it was")
	do("allowances.zones.tangFaceMm", "0.2")
	refused("allowances.zones", "some", "field.choice")
	assert.Nil(t, do("allowances.zones", "same").Doc.Request.Allowances.Zones)

	bare := do("design.tangKind", "rod").Doc.Request.Design
	assert.Nil(t, bare.Handle)
	refused("design.handle", "drawn", "field.choice")
	assert.Len(t, do("design.hole", "add").Doc.Request.Design.Tang.Holes, 1, "to hang it by")
	refused("design.hole", "add", "field.hole")
	refused("design.hole", "slot", "field.slot")
	assert.Empty(t, do("design.tangKind", "hidden").Doc.Request.Design.Tang.Holes)

	longer := do("outline.heel", "150mm").Doc.Request.Design
	assert.InDelta(t, 150, longer.LengthMm, 1e-9)
	refused("outline.heel", "1mm", "field.rangeLength")
}
