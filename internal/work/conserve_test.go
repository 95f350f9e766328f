package work_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// model is what a rack must come to: one bar that was put on it, and all that came of it.
type model struct {
	*rapid.T
	w        *work.Work
	whole    float64
	family   map[string]work.Stock
	usedUp   map[string]bool
	cuts     []bookedCut
	pieces   []string
	lastRole *int
}

type bookedCut struct {
	piece, role string
	lengthMm    float64
	kerfMm      float64
}

// look reads the rack and tells how much of the bar is on it.
func (m *model) look() (sum float64) {
	for _, archived := range []bool{false, true} {
		all, aside, err := m.w.Rack(ctx, archived)
		require.NoError(m, err)
		require.Empty(m, aside)
		for _, s := range all {
			if m.family[s.ID].ID == "" && m.family[s.Doc.ParentID].ID == "" {
				continue
			}
			m.family[s.ID] = s
			if s.Doc.Piece.LengthMm > m.whole+1e-6 {
				m.Fatalf("a bar of %v mm is now %v mm long", m.whole, s.Doc.Piece.LengthMm)
			}
			if !archived {
				sum += s.Doc.Piece.LengthMm * float64(s.Doc.Count)
			}
		}
	}
	return sum
}

// item is any of what came of the bar.
func (m *model) item() work.Stock {
	var list []string
	for id := range m.family {
		list = append(list, id)
	}
	slices.Sort(list)
	return m.family[rapid.SampledFrom(list).Draw(m.T, "item")]
}

// lengthOf is how long a bar is now.
func (m *model) lengthOf(id string) float64 {
	s, err := m.w.StockItem(ctx, id)
	require.NoError(m, err)
	return s.Start.LengthMm
}

// book books any length, impossible ones too.
func (m *model) book() {
	*m.lastRole++
	s, n := m.item(), *m.lastRole
	mm := rapid.OneOf(rapid.Float64Range(1, m.whole), rapid.SampledFrom([]float64{-500, 0, 1e6, math.Inf(1), math.NaN(), m.whole})).Draw(m.T, "mm")
	piece := m.pieces[n%len(m.pieces)]
	bar := work.CutBar{StockID: s.ID, Version: s.Version, Parts: []work.CutPart{{PieceID: piece, Copy: n, LengthMm: mm}}}
	kerf := rapid.SampledFrom([]float64{0, 1.5, 20, -3, 21}).Draw(m.T, "kerf")
	order := work.CutOrder{KerfMm: kerf}
	if m.w.TakeCuts(ctx, work.CutPlan{Order: order, Groups: []work.CutGroup{{Bars: []work.CutBar{bar}}}}) == nil {
		if kerf < 0 || kerf > 20 {
			m.Fatalf("a kerf of %v was taken", kerf)
		}
		m.cuts = append(m.cuts, bookedCut{piece, fmt.Sprintf("body-%d", n), mm, min(kerf, m.lengthOf(s.ID)-mm)})
	}
}

// cut makes a cut, or lets it go, and tells what the rack must lose.
func (m *model) cut() (lost float64) {
	if len(m.cuts) == 0 {
		return 0
	}
	c := rapid.SampledFrom(m.cuts).Draw(m.T, "cut")
	state := rapid.SampledFrom([]string{work.CutMadeNow, work.CutMadeNow, work.CutBooked, work.CutProposed}).Draw(m.T, "state")
	before := map[string]work.Stock{}
	for id, s := range m.family {
		if !s.Archived {
			before[id] = s
		}
	}
	if _, err := m.w.SetCut(ctx, c.piece, c.role, work.CutTyped{State: state}); err != nil || state != work.CutMadeNow {
		return 0
	}
	if c.lengthMm < 1 || c.lengthMm > m.whole {
		m.Fatalf("%v mm were cut", c.lengthMm)
	}
	m.look()
	for id, s := range before {
		mm := s.Doc.Piece.LengthMm
		switch now := m.family[id]; {
		case now.Archived: // all of it went
			m.usedUp[id] = true
			return mm
		case now.Doc.Count < s.Doc.Count && mm-c.lengthMm-c.kerfMm < 40: // of several: no end worth keeping
			return mm
		}
	}
	return c.lengthMm + c.kerfMm
}

// shelve takes an item off the rack or puts it back, and tells what the rack must lose.
func (m *model) shelve() (lost float64) {
	s := m.item()
	if _, err := m.w.ArchiveStock(ctx, s.ID, s.Version, !s.Archived); err != nil {
		return 0
	}
	if m.usedUp[s.ID] {
		m.Fatal("what was used up is on the rack again")
	}
	if lost = s.Doc.Piece.LengthMm * float64(s.Doc.Count); s.Archived {
		return -lost
	}
	return lost
}

// mistype types a length that nothing has.
func (m *model) mistype() {
	s, text := m.item(), rapid.SampledFrom([]string{"-5", "1e307", "0", "NaN"}).Draw(m.T, "typed")
	_, err := m.w.EditStock(ctx, s.ID, s.Version, typed("lengthMm", text))
	var inv *edit.InvalidError
	require.ErrorAs(m, err, &inv, text)
}

// TestSteelIsConserved: whatever is booked, let go, cut, archived, put back and mistyped, in
// any order and with any figures: no bar is ever longer than it was, and the rack loses what
// was cut and its kerf, or the whole of an end that is too short to keep.
func TestSteelIsConserved(t *testing.T) {
	w, _ := fresh(t)
	pieces, lastRole := []string{start(t, w).ID, start(t, w).ID}, 1
	rapid.Check(t, func(t *rapid.T) {
		whole := rapid.Float64Range(60, 3000).Draw(t, "length")
		first, err := w.AddStock(ctx, doc.Stock{Name: "Bar", Piece: bar(25, 5, whole), SteelID: "1084", Count: rapid.IntRange(1, 4).Draw(t, "count")})
		require.NoError(t, err)
		m := &model{T: t, w: w, whole: whole, family: map[string]work.Stock{first.ID: first}, usedUp: map[string]bool{}, pieces: pieces, lastRole: &lastRole}
		before := m.look()
		for range rapid.IntRange(1, 20).Draw(t, "calls") {
			lost := 0.0
			switch rapid.IntRange(0, 4).Draw(t, "call") {
			case 0:
				m.book()
			case 1, 2:
				lost = m.cut()
			case 3:
				lost = m.shelve()
			case 4:
				m.mistype()
			}
			after := m.look()
			if math.Abs(before-after-lost) > 1e-6 {
				t.Fatalf("the rack had %v mm, and has %v: %v should be gone", before, after, lost)
			}
			before = after
		}
	})
}
