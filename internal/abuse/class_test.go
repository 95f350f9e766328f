package abuse

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"path/filepath"
	"slices"
	"sync"
	"testing"
	"time"

	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// student is one browser of a class.
type student struct {
	*target
	rng   *rand.Rand
	saves []time.Duration
	wrong []string
}

// ask sends JSON and reads the answer into out; what is not well is noted.
func (s *student) ask(method, path string, body, out any) bool {
	var raw []byte
	if body != nil {
		raw, _ = json.Marshal(body)
	}
	status, answer, _ := s.call(method, "/api/v1"+path, "application/json", raw)
	if status != http.StatusOK || out != nil && json.Unmarshal(answer, out) != nil {
		s.wrong = append(s.wrong, fmt.Sprintf("%s %s: %d %.200s", method, path, status, answer))
		return false
	}
	return true
}

type madePiece struct {
	Piece struct {
		ID      string          `json:"id"`
		Version int             `json:"version"`
		Doc     json.RawMessage `json:"doc"`
	} `json:"piece"`
}

// hour is what a student does in an hour at the bench: a piece of their own, figures tried and kept, heats looked at,
// and the lists of everybody's work in between. pause is how long they think.
func (s *student) hour(n, edits int, pause time.Duration, pattern, bar string) {
	var m madePiece
	if !s.ask("POST", "/pieces", work.NewPiece{Name: fmt.Sprintf("Student %d", n), PatternID: pattern, StockID: bar, Edits: []edit.Edit{}}, &m) {
		return
	}
	for i := range edits {
		time.Sleep(time.Duration(s.rng.Float64() * 2 * float64(pause)))
		try := []edit.Edit{{Field: "design.lengthMm", Text: fmt.Sprint(90 + (i+n)%40)}}
		switch i % 6 {
		case 1:
			s.ask("POST", "/plan/preview", map[string]any{"doc": m.Piece.Doc, "edits": try}, nil)
		case 3:
			s.ask("GET", "/pieces", nil, nil)
		case 5:
			s.ask("GET", "/stock", nil, nil)
		}
		at := time.Now()
		if !s.ask("PATCH", "/pieces/"+m.Piece.ID, map[string]any{"version": m.Piece.Version, "edits": try}, &m) {
			return
		}
		s.saves = append(s.saves, time.Since(at))
	}
}

// TestAClassOfFifty for an hour, ten times as fast (in short: a few of them for a moment): each saves 120 times, nobody gets an error, nobody's work is another's, and
// 99 saves in a hundred are kept within half a second.
func TestAClassOfFifty(t *testing.T) {
	x := serve(t, filepath.Join(t.TempDir(), "demo.db"))
	patterns, _, err := x.work.Patterns(t.Context(), false)
	require.NoError(t, err)
	rack, _, err := x.work.Rack(t.Context(), false)
	require.NoError(t, err)
	before := len(x.pieces())
	n, edits, pause := times(8, 50), times(5, 120), time.Duration(times(20, 3000))*time.Millisecond
	class := make([]*student, n)
	var wait sync.WaitGroup
	for i := range class {
		class[i] = &student{target: x, rng: rand.New(rand.NewPCG(7, uint64(i)))}
		wait.Go(func() { class[i].hour(i, edits, pause, patterns[0].ID, rack[0].ID) })
	}
	wait.Wait()
	var saves []time.Duration
	for _, s := range class {
		assert.Empty(t, s.wrong)
		saves = append(saves, s.saves...)
	}
	require.Len(t, saves, n*edits)
	slices.Sort(saves)
	p99 := saves[len(saves)*99/100]
	t.Logf("%d students, %d saves: median %v, 99 of 100 within %v", n, len(saves), saves[len(saves)/2], p99)
	if long { // a figure of a machine, not of the code
		assert.Less(t, p99, 500*time.Millisecond)
	}
	after := x.pieces()
	assert.Len(t, after, before+n)
	for _, p := range after {
		var i int
		if _, err := fmt.Sscanf(p.Doc.Name, "Student %d", &i); err == nil {
			assert.InDelta(t, float64(90+(edits-1+i)%40), p.Doc.Request.Design.LengthMm, 1e-9, p.Doc.Name)
		}
	}
}
