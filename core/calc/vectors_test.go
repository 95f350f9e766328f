package calc_test

import (
	"encoding/json"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"coldember/core/calc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestVectors runs every reference case through the same door that the command
// line and the API use.
func TestVectors(t *testing.T) {
	files, err := filepath.Glob("../testdata/vectors/*.json")
	require.NoError(t, err)
	require.Len(t, files, 27)
	for _, file := range files {
		kind := strings.TrimSuffix(filepath.Base(file), ".json")
		raw, err := os.ReadFile(file)
		require.NoError(t, err)
		var v struct {
			Kind           string
			RelTol, AbsTol float64
			Cases          []struct {
				Name string
				In   json.RawMessage
				Out  any
			}
		}
		require.NoError(t, json.Unmarshal(raw, &v))
		require.Equal(t, kind, v.Kind)
		for _, c := range v.Cases {
			t.Run(kind+"/"+c.Name, func(t *testing.T) {
				got, err := calc.Run(t.Context(), kind, c.In)
				require.NoError(t, err)
				text, err := json.Marshal(got)
				require.NoError(t, err)
				var back any
				require.NoError(t, json.Unmarshal(text, &back))
				same(t, "", c.Out, back, v.RelTol, v.AbsTol)
			})
		}
	}
}

// same holds want against got wherever want has a figure.
func same(t *testing.T, path string, want, got any, rel, abs float64) {
	t.Helper()
	switch w := want.(type) {
	case map[string]any:
		g, ok := got.(map[string]any)
		require.True(t, ok, path)
		for k, v := range w {
			require.Contains(t, g, k, path)
			same(t, path+"."+k, v, g[k], rel, abs)
		}
	case []any:
		g, ok := got.([]any)
		require.True(t, ok, path)
		require.Len(t, g, len(w), path)
		for i := range w {
			same(t, path, w[i], g[i], rel, abs)
		}
	case float64:
		g, ok := got.(float64)
		require.True(t, ok, path)
		assert.LessOrEqual(t, math.Abs(w-g), rel*math.Abs(w)+abs, "%s: want %v, got %v", path, w, g)
	default:
		assert.Equal(t, want, got, path)
	}
}

func TestBadInputSaysWhatIsWrong(t *testing.T) {
	for kind, in := range map[string]string{
		"flow":    `{"carbonPct":0.8,"tempC":900,"strain":0.2,"ratePerS":0}`,
		"cool":    `{"widthMm":-1,"thicknessMm":4,"fromC":900,"toC":800}`,
		"heat":    `{"widthMm":25,"thicknessMm":6,"fromC":20,"toC":1300,"forgeC":1200}`,
		"stock":   `{"form":"leaf","widthMm":60,"thicknessMm":8,"chordMm":700,"riseMm":500}`,
		"section": `{"kind":"hollow","heightMm":28,"spineMm":4.8,"edgeMm":0.6,"wheelRadiusMm":5}`,
		"blade":   `{"outline":{"spine":[[0,0],[50,-20]],"edge":[[0,0],[50,-10]]},"thickness":[[0,1],[50,3]],"grind":{"kind":"flat"}}`,
		"spread":  `{"biteMm":8,"widhtMm":30}`,
		"size":    `[]`,
		"stroke":  `{"heightMm":6,"biteMm":20,"breadthMm":20,"stressMPa":100,"targetMm":4,"usefulJ":10,"forceKN":10}`,
		"largest": `{"lossFraction":1.2}`,
		"cutplan": `{"bars":[{"lengthMm":-5,"count":1}]}`,
		"nonsuch": `{}`,
	} {
		_, err := calc.Run(t.Context(), kind, json.RawMessage(in))
		require.Error(t, err, kind)
		assert.NotContains(t, err.Error(), "panic", kind)
	}
}

func TestACutPlanIsAnsweredAsJSON(t *testing.T) {
	got, err := calc.Run(t.Context(), "cutplan", json.RawMessage(`{"bars":[{"lengthMm":1000,"count":1}],"parts":[{"lengthMm":499,"count":2},{"lengthMm":1200,"count":1}],"kerfMm":2,"keepMm":100}`))
	require.NoError(t, err)
	text, err := json.Marshal(got)
	require.NoError(t, err)
	assert.JSONEq(t, `{"bars":[{"lengthMm":1000,"parts":[499,499],"remnantMm":0}],"consumedMm":1000,"lowerBoundMm":1000,"optimal":true,"unplaced":[1200]}`, string(text))
}

// TestNoQuestionGoesOnForEver: what no law can answer for is refused by the name of the
// figure, and what comes to no number is not told as one.
func TestNoQuestionGoesOnForEver(t *testing.T) {
	for what, in := range map[string][2]string{
		"fromC: calc.range":           {"cool", `{"widthMm":30,"thicknessMm":5,"fromC":1e15,"toC":900}`},
		"toC: calc.range":             {"heat", `{"widthMm":30,"thicknessMm":5,"fromC":20,"toC":-1e6,"forgeC":1250}`},
		"widthMm: calc.range":         {"cool", `{"widthMm":1e300,"thicknessMm":5,"fromC":1100,"toC":900}`},
		"bars.0.lengthMm: calc.range": {"cutplan", `{"bars":[{"lengthMm":1e307,"count":1}]}`},
		"unsupported value":           {"blow", `{"volumeMm3":1e12,"strain":1e12,"stressMPa":1e12,"heightMm":1e6,"biteMm":1e-300,"hammerKg":1,"speedMPerS":5,"anvilKg":100}`},
		"forgedZones: calc.rows":      {"size", `{"bar":{"areaMm2":100},"forgedZones":[` + strings.Repeat(`{"volumeMm3":1},`, 10000) + `{"volumeMm3":1}]}`},
	} {
		_, err := calc.Run(t.Context(), in[0], json.RawMessage(in[1]))
		var wrong *calc.InputError
		require.ErrorAs(t, err, &wrong, what)
		assert.ErrorContains(t, err, what)
	}
}

// TestSurroundingsCount: what can be said of them changes the answer.
func TestSurroundingsCount(t *testing.T) {
	time := func(kind, more string) float64 {
		got, err := calc.Run(t.Context(), kind, json.RawMessage(`{"widthMm":30,"thicknessMm":5,`+more+`}`))
		require.NoError(t, err)
		return got.(map[string]float64)["timeS"]
	}
	still := time("cool", `"fromC":1100,"toC":800`)
	assert.Less(t, time("cool", `"fromC":1100,"toC":800,"airWPerM2K":60`), still, "in a draught")
	assert.Less(t, time("cool", `"fromC":1100,"toC":800,"anvilWPerM2K":500`), still, "on the anvil")
	assert.Greater(t, time("cool", `"fromC":1100,"toC":800,"ambientC":600`), still, "above the coals")
	assert.Greater(t, time("cool", `"fromC":1100,"toC":800,"emissivity":0.3`), still, "bright")
	gentle := time("heat", `"fromC":20,"toC":900,"forgeC":1100,"gasWPerM2K":20`)
	assert.Less(t, time("heat", `"fromC":20,"toC":900,"forgeC":1100,"gasWPerM2K":200`), gentle, "in a blast")
	assert.Less(t, time("heat", `"fromC":20,"toC":900,"forgeC":1300,"gasWPerM2K":20`), gentle, "in a hotter fire")
}
