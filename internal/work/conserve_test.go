package work_test

import (
	"errors"
	"fmt"
	"math"
	"testing"

	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestSteelIsConserved: whatever is booked, let go, cut, archived, put back and measured
// again, in any order and with any figures: no bar is ever longer than it was, and the rack
// loses what was cut and its kerf, or the whole of an end that is too short to keep.
func TestSteelIsConserved(t *testing.T) {
	w, _ := fresh(t)
	var pieces []string
	for range 3 {
		pieces = append(pieces, start(t, w).ID)
	}
	roles := 1 // every cut is one of its own
	rapid.Check(t, func(t *rapid.T) {
		whole, kerf := rapid.Float64Range(60, 3000).Draw(t, "length"), 1.5
		first, err := w.AddStock(ctx, doc.Stock{Name: "Bar", Piece: bar(25, 5, whole), SteelID: "1084", Count: rapid.IntRange(1, 4).Draw(t, "count")})
		require.NoError(t, err)
		family := map[string]work.Stock{}
		look := func() (sum float64) {
			for _, archived := range []bool{false, true} {
				all, aside, err := w.Rack(ctx, archived)
				require.NoError(t, err)
				require.Empty(t, aside)
				for _, s := range all {
					if _, ours := family[s.ID]; !ours && s.ID != first.ID && family[s.Doc.ParentID].ID == "" {
						continue
					}
					family[s.ID] = s
					if s.Doc.Piece.LengthMm > whole+1e-6 {
						t.Fatalf("a bar of %v mm is now %v mm long", whole, s.Doc.Piece.LengthMm)
					}
					if !archived {
						sum += s.Doc.Piece.LengthMm * float64(s.Doc.Count)
					}
				}
			}
			return sum
		}
		ids := func() (out []string) {
			for id := range family {
				out = append(out, id)
			}
			return out
		}
		type booked struct {
			piece, role string
			lengthMm    float64
		}
		var cuts []booked
		before := look()
		usedUp := map[string]bool{}
		counts := func() map[string]int {
			out := map[string]int{}
			for id, s := range family {
				out[id] = s.Doc.Count
			}
			return out
		}
		count := counts()
		for range rapid.IntRange(1, 25).Draw(t, "calls") {
			list := ids()
			s := family[list[rapid.IntRange(0, len(list)-1).Draw(t, "item")]]
			lost := 0.0 // what the rack loses
			switch rapid.IntRange(0, 4).Draw(t, "call") {
			case 0: // book
				roles++
				mm := rapid.OneOf(rapid.Float64Range(1, whole), rapid.SampledFrom([]float64{-500, 0, 1e6, math.Inf(1), math.NaN(), whole})).Draw(t, "mm")
				piece := pieces[roles%len(pieces)]
				err := w.TakeCuts(ctx, work.CutPlan{Groups: []work.CutGroup{{Bars: []work.CutBar{{StockID: s.ID, Version: s.Version, Parts: []work.CutPart{{PieceID: piece, Copy: roles, LengthMm: mm}}}}}}})
				if err == nil {
					cuts = append(cuts, booked{piece, roleOf(roles), mm})
				}
			case 1, 2: // cut, or let go
				if len(cuts) == 0 {
					continue
				}
				c := cuts[rapid.IntRange(0, len(cuts)-1).Draw(t, "cut")]
				state := rapid.SampledFrom([]string{work.CutMadeNow, work.CutMadeNow, work.CutBooked, work.CutProposed}).Draw(t, "state")
				onRack := map[string]float64{}
				for id, s := range family {
					if !s.Archived {
						onRack[id] = s.Doc.Piece.LengthMm
					}
				}
				if _, err := w.SetCut(ctx, c.piece, c.role, state); err == nil && state == work.CutMadeNow {
					lost = c.lengthMm + kerf
					look()
					for id, mm := range onRack {
						if family[id].Archived { // all of it went
							usedUp[id], lost = true, mm
						} else if mm-lost < 40 && mm > c.lengthMm-1e-6 && family[id].Doc.Count < count[id] {
							lost = mm // of several: no end worth keeping
						}
					}
					count = counts()
					if c.lengthMm < 1 || c.lengthMm > whole {
						t.Fatalf("%v mm were cut", c.lengthMm)
					}
				}
			case 3: // off the rack, or back
				length := s.Doc.Piece.LengthMm * float64(s.Doc.Count)
				if _, err := w.ArchiveStock(ctx, s.ID, s.Version, !s.Archived); err == nil {
					if usedUp[s.ID] {
						t.Fatal("what was used up is on the rack again")
					}
					if lost = length; s.Archived {
						lost = -length
					}
				}
			case 4: // measured shorter, and impossible figures
				text := rapid.SampledFrom([]string{"-5", "1e307", "0", "NaN"}).Draw(t, "typed")
				_, err := w.EditStock(ctx, s.ID, s.Version, typed("lengthMm", text))
				var inv *edit.InvalidError
				if !errors.As(err, &inv) {
					t.Fatalf("%q was taken for a length: %v", text, err)
				}
			}
			after := look()
			if gone := before - after; math.Abs(gone-lost) > 1e-6 {
				t.Fatalf("the rack had %v mm, and has %v: %v should be gone", before, after, lost)
			}
			before = after
		}
	})
}

func roleOf(n int) string { return fmt.Sprintf("body-%d", n) }
