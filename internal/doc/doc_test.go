package doc_test

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"coldember/core/finish"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/session"
	"coldember/internal/doc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write a fixture of the present form where there is none yet; those that are there never change")

// ages reads a fixture of every form that a kind of document ever had, and checks that
// what it says is still there in the present form.
func ages[D doc.Document](t *testing.T, kind string, current int, check func(t *testing.T, version int, d D)) {
	for v := 1; v <= current; v++ {
		file := filepath.Join("testdata", fmt.Sprintf("%s-%d.json", kind, v))
		text, err := os.ReadFile(file)
		if v == current && errors.Is(err, os.ErrNotExist) && *update {
			first, err := os.ReadFile(filepath.Join("testdata", fmt.Sprintf("%s-%d.json", kind, v-1)))
			require.NoError(t, err)
			d, err := doc.Decode[D](string(first))
			require.NoError(t, err)
			text = []byte(doc.Encode(d) + "\n")
			require.NoError(t, os.WriteFile(file, text, 0o644))
		}
		require.NotEmpty(t, text, "no fixture of form %d of a %s: run with -update", v, kind)
		d, err := doc.Decode[D](string(text))
		require.NoError(t, err, file)
		check(t, v, d)
		// what is written again is of the present form, and the same
		again := doc.Encode(d)
		var head struct{ DocVersion int }
		require.NoError(t, json.Unmarshal([]byte(again), &head))
		assert.Equal(t, current, head.DocVersion, "the number of forms in this test is stale")
		back, err := doc.Decode[D](again)
		require.NoError(t, err)
		assert.Equal(t, d, back)
	}
	_, err := os.Stat(filepath.Join("testdata", fmt.Sprintf("%s-%d.json", kind, current+1)))
	assert.ErrorIs(t, err, os.ErrNotExist, "a fixture of a form that this test does not read")
}

func TestEveryFormOfEveryDocumentOpens(t *testing.T) {
	ages(t, "piece", 10, func(t *testing.T, _ int, d doc.Piece) {
		assert.Equal(t, "Rigging knife", d.Name)
		assert.Equal(t, "for the tender", d.Notes)
		assert.NoError(t, d.Request.Validate())
		assert.NotNil(t, d.Request.Design.Handle)
		speed, rate := forge.Arm(d.Request.Smith.HammerKg)
		assert.InDelta(t, speed, d.Request.Smith.SpeedMPerS, 1e-9, "the arm's")
		assert.InDelta(t, rate, d.Request.Smith.RatePerS, 1e-9)
		assert.InDelta(t, .8, d.Request.Smith.LandShare, 1e-9)
		assert.InDelta(t, 40, d.Request.Smith.PeenLengthMm, 0)
	})
	ages(t, "pattern", 4, func(t *testing.T, _ int, d doc.Pattern) {
		assert.NoError(t, d.Validate())
		assert.NotNil(t, d.Tags)
	})
	ages(t, "stock", 7, func(t *testing.T, _ int, d doc.Stock) {
		assert.NoError(t, d.Validate())
		assert.InDelta(t, 1000-108.1-1.5, d.Piece.LengthMm, .1, "shorter by what was cut")
	})
	ages(t, "shop", 12, func(t *testing.T, _ int, d doc.Shop) {
		assert.NoError(t, d.Validate())
		assert.Len(t, d.Smiths, 2)
		assert.Len(t, d.Hammers, 3, "the usual ones")
		assert.Len(t, d.Hearths, 1)
		assert.Len(t, d.Tongs, 4)
		assert.Len(t, d.Baths, 2)
		assert.Len(t, d.Ovens, 1)
		for _, h := range d.Smiths {
			speed, _ := forge.Arm(h.HammerKg)
			assert.InDelta(t, speed, h.SpeedMPerS, 1e-9)
		}
		assert.Equal(t, doc.CopySettings{Keep: 14}, d.Copies)
	})
	ages(t, "session", 9, func(t *testing.T, _ int, d doc.Session) {
		assert.NoError(t, d.Validate())
		assert.Equal(t, "Rigging knife", d.Name)
		assert.NotEmpty(t, d.Course.Steps)
	})
	ages(t, "event", 3, func(t *testing.T, _ int, e session.Event) {
		assert.Equal(t, session.Read, e.Kind)
		assert.InDelta(t, 23.9, e.Reading.Mm, 0)
		assert.Equal(t, 4, e.Seq)
	})
	ages(t, "practised", 1, func(t *testing.T, _ int, d doc.Practised) {
		assert.Equal(t, "Ida", d.Who)
		assert.NotEmpty(t, d.Actions)
		assert.NoError(t, d.Validate())
	})
	ages(t, "plan", 11, func(t *testing.T, _ int, d doc.Kept) {
		assert.NoError(t, d.Request.Validate())
		assert.Equal(t, plan.RequestVersion, d.Request.Version)
		if d.Request.Smith.Skill == forge.Sure {
			assert.InDelta(t, 6.4, d.Request.Smith.SpeedMPerS, 1e-9, "a kept plan stays as it was made")
		}
	})
}

// TestANewerFormIsRefused plainly, and a broken one told from it.
func TestANewerFormIsRefused(t *testing.T) {
	text := strings.Replace(doc.Encode(doc.NewShop()), `"docVersion":12`, `"docVersion":13`, 1)
	_, err := doc.Decode[doc.Shop](text)
	var newer *doc.NewerError
	require.ErrorAs(t, err, &newer)
	assert.Equal(t, doc.NewerError{Kind: "shop", Version: 13, Reads: 12}, *newer)
	for _, text := range []string{"", "{", "[]", `{"docVersion":"x"}`, `{"smiths":7}`} {
		_, err := doc.Decode[doc.Shop](text)
		var broken *doc.BrokenError
		require.ErrorAs(t, err, &broken, text)
		assert.Equal(t, "shop", broken.Kind)
	}
}

func TestACopyIsNobodyElses(t *testing.T) {
	a := doc.NewShop()
	b := doc.Copy(a)
	b.Smiths[0].Name = "Somebody else"
	assert.NotEqual(t, a.Smiths[0].Name, b.Smiths[0].Name)
}

// TestASurfaceOfOldHasItsName: nothing less than what was chosen before the finishes had names.
func TestASurfaceOfOldHasItsName(t *testing.T) {
	for was, is := range map[string]finish.Surface{"sanded": finish.Satin800, "flats": finish.AsForged, "belt": finish.BeltSatin, "etched": finish.Etched} {
		text, err := os.ReadFile(filepath.Join("testdata", "piece-7.json"))
		require.NoError(t, err)
		var m map[string]any
		require.NoError(t, json.Unmarshal(text, &m))
		m["request"].(map[string]any)["finish"] = map[string]any{"surface": was}
		old, err := json.Marshal(m)
		require.NoError(t, err)
		d, err := doc.Decode[doc.Piece](string(old))
		require.NoError(t, err)
		require.NotNil(t, d.Request.Finish)
		assert.Equal(t, is, d.Request.Finish.Surface)
		assert.NoError(t, d.Request.Validate())
	}
}
