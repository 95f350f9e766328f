package export_test

import (
	"encoding/xml"
	"errors"
	"io"
	"strings"
	"testing"

	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/internal/export"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTheHandbookIsDrawnByTheCore: each of its drawings is sound XML with a title, draws something, and holds no script; there are
// no others.
func TestTheHandbookIsDrawnByTheCore(t *testing.T) {
	p, err := planner.Make(t.Context(), plantest.Request())
	require.NoError(t, err)
	for _, name := range export.HelpDrawings() {
		svg, ok := export.HelpDrawing(name, p)
		require.True(t, ok)
		paths, titles := 0, 0
		d := xml.NewDecoder(strings.NewReader(string(svg)))
		for {
			tok, err := d.Token()
			if errors.Is(err, io.EOF) {
				break
			}
			require.NoError(t, err, name)
			if e, is := tok.(xml.StartElement); is {
				switch e.Name.Local {
				case "path":
					paths++
				case "title":
					titles++
				}
				assert.NotEqual(t, "script", e.Name.Local)
			}
		}
		assert.Positive(t, paths, name)
		assert.Equal(t, 1, titles, name)
		assert.NotContains(t, string(svg), "NaN")
	}
	bar, _ := export.HelpDrawing("bar", p)
	assert.Equal(t, len(p.Bar.Marks)+zones(p.Drawing.Forged)+zones(p.Drawing.Finished), strings.Count(string(bar), "<path"))
	_, ok := export.HelpDrawing("none", p)
	assert.False(t, ok)
}

// zones counts the stretches of a drawing.
func zones(st []plan.Station) (n int) {
	for i := range st {
		if i == 0 || st[i].Zone != st[i-1].Zone {
			n++
		}
	}
	return n
}
