package text_test

import (
	"encoding/json"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/quantity"
	"coldember/core/section"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/internal/text"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// code looks like "warn.tooNarrow": what the core returns instead of words.
var code = regexp.MustCompile(`^(warn|field|caution|need|ledger|blade|section|stock|forge|plan|quantity|problem|card|colour|op|how|face|starter|shop|outline|trace|drawing|picture|hope|prep|hazard|cutting|csv|cutplan|session|harden|treat|log|gauges|timer|day|anvil)\.[a-zA-Z.]+$`)

// TestEveryCodeHasWords reads the source for codes and looks each up.
func TestEveryCodeHasWords(t *testing.T) {
	seen := 0
	for _, root := range []string{"../../core", "../work", "../api", "../export", "../server"} {
		err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			f, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
			require.NoError(t, err)
			ast.Inspect(f, func(n ast.Node) bool {
				lit, ok := n.(*ast.BasicLit)
				if !ok || lit.Kind != token.STRING {
					return true
				}
				s, err := strconv.Unquote(lit.Value)
				if err == nil && code.MatchString(s) && !strings.HasSuffix(s, ".") && !fieldPath(s) {
					seen++
					assert.True(t, text.Has(s), "%s says %q, which has no words", path, s)
				}
				return true
			})
			return nil
		})
		require.NoError(t, err)
	}
	assert.Greater(t, seen, 100)
}

// fieldPath tells a field's name from a code.
func fieldPath(s string) bool {
	return strings.HasSuffix(s, "Mm") || s == "outline.spine" || s == "outline.edge"
}

func TestEveryChoiceHasWords(t *testing.T) {
	var codes []string
	for _, s := range append(blade.Shapes(), blade.Own) {
		codes = append(codes, "shape."+string(s))
	}
	for _, u := range blade.Uses() {
		codes = append(codes, "use."+string(u))
	}
	for _, what := range []string{"weight", "balance", "behind", "stiff"} {
		codes = append(codes, "finding."+what, "finding.low."+what, "finding.high."+what)
	}
	for _, k := range section.Kinds() {
		codes = append(codes, "grind."+string(k))
	}
	for _, s := range append(blade.Schools(), blade.OwnSchool) {
		codes = append(codes, "school."+string(s))
	}
	for _, f := range stock.Forms() {
		codes = append(codes, "form."+string(f))
	}
	for _, s := range forge.Skills() {
		codes = append(codes, "skill."+string(s))
	}
	for _, s := range blade.Starters() {
		codes = append(codes, "starter."+s.ID)
	}
	for _, k := range append(forge.Kinds(), "normalise", "anneal") {
		codes = append(codes, "op."+string(k), "op.short."+string(k), "how."+string(k))
	}
	for _, f := range []forge.Face{forge.FlatFace, forge.PeenAcross, forge.PeenAlong, forge.OnEdge, forge.BevelFace, forge.AnvilEdge} {
		codes = append(codes, "face."+string(f))
	}
	for _, q := range steel.Quenches() {
		codes = append(codes, "quench."+string(q))
	}
	for _, f := range stock.Families() {
		codes = append(codes, "family."+f.ID)
	}
	for _, o := range stock.Origins() {
		codes = append(codes, "origin."+o.ID)
	}
	for _, h := range stock.Hazards() {
		codes = append(codes, "hazard."+h.ID, "hazard.short."+h.ID)
	}
	for _, q := range stock.Tests() {
		codes = append(codes, "test."+q.ID)
		for _, r := range q.Results {
			codes = append(codes, "test."+q.ID+"."+r.ID)
		}
	}
	for _, w := range stock.Whys() {
		codes = append(codes, "why.dead."+w)
	}
	for _, c := range codes {
		assert.True(t, text.Has(c), c)
	}
}

func TestSayFillsAndNeverGoesSilent(t *testing.T) {
	assert.Equal(t, "Heat 3, Bevels", text.Say("heats.bead", map[string]string{"heat": "Heat 3", "op": "Bevels"}))
	assert.Equal(t, "no.such.code", text.Say("no.such.code", nil))
	assert.Equal(t, "1 heat", text.Count("heats", 1, nil))
	assert.Equal(t, "0 heats", text.Count("heats", 0, nil))
	assert.Equal(t, "7 heats", text.Count("heats", 7, nil))
}

func TestPluralsComeInPairs(t *testing.T) {
	for _, c := range text.Codes() {
		if base, ok := strings.CutSuffix(c, ".one"); ok {
			assert.True(t, text.Has(base+".other"), c)
		}
	}
}

func TestFiguresCarryTheirUnit(t *testing.T) {
	f := map[string]float64{"needMm": 127.26, "edgeMm": 1.49, "soakC": 1080, "lossFraction": .0702, "workS": 6.2, "ratio": 5}
	metric := text.Figures(f, quantity.Metric)
	assert.Equal(t, map[string]string{"needMm": "127.3 mm", "edgeMm": "1.49 mm", "soakC": "1080 °C", "lossFraction": "7.0 %", "workS": "6 s", "ratio": "5"}, metric)
	inches := text.Figures(f, quantity.Imperial)
	assert.Equal(t, "5 in", inches["needMm"])
	assert.Equal(t, "0.059 in", inches["edgeMm"])
	assert.Equal(t, "1980 °F", inches["soakC"])
	assert.Equal(t, "20 mm", text.FigureFor("field.rangeLength", map[string]float64{"lowest": 20}, quantity.Metric)["lowest"])
}

func TestTheSameWordsAreSaidOnceAndStopsFirst(t *testing.T) {
	edge := func(zone string) fact.Warning {
		return fact.Warning{Code: "warn.edgewise", Severity: fact.Warn, Figures: fact.Figures{"ratio": 5, "limit": 3}, Where: fact.Where{Zone: zone}}
	}
	lines := text.Warnings([]fact.Warning{edge("point"), edge("tang"), {Code: "warn.assumedSteel", Severity: fact.Note}, {Code: "warn.volumeShort", Severity: fact.Stop, Figures: fact.Figures{"shortMm": 12, "needMm": 112, "haveMm": 100}}}, quantity.Metric)
	require.Len(t, lines, 3)
	assert.True(t, lines[0].Stop)
	assert.Contains(t, lines[0].Words, "12 mm too short")
	assert.True(t, strings.HasPrefix(lines[1].Words, "Point, Tang: "), lines[1].Words)
	assert.NotContains(t, lines[0].Words+lines[1].Words+lines[2].Words, "{")
}

func TestHeatColours(t *testing.T) {
	assert.Equal(t, "bright orange", text.HeatColour(1061, quantity.Metric))
	assert.Equal(t, "cherry", text.HeatColour(800, quantity.Metric))
	assert.Equal(t, "white", text.HeatColour(1500, quantity.Metric))
	sooner := quantity.Metric.WithSooner(true)
	assert.Equal(t, "orange", text.HeatColour(900, sooner), "the school that names them sooner")
	assert.Equal(t, "orange", text.Word("heatColour.900", sooner))
	assert.Equal(t, "light red", text.Word("heatColour.900", quantity.Metric))
}

// TestPrintingAgreesWithThePages: the same cases are held against the front
// end's printing.
func TestPrintingAgreesWithThePages(t *testing.T) {
	raw, err := os.ReadFile("print.json")
	require.NoError(t, err)
	var cases []map[string]any
	require.NoError(t, json.Unmarshal(raw, &cases))
	printed := map[string]func(float64, quantity.System) string{
		"length": quantity.FormatLength, "thickness": quantity.FormatThickness, "mass": quantity.FormatMass, "temperature": quantity.FormatTemperature,
		"speed": quantity.FormatSpeed, "massRate": quantity.FormatMassRate, "massPrice": quantity.FormatMassPrice, "rest": quantity.FormatRest,
	}
	for _, c := range cases {
		if low, ok := c["low"].(float64); ok {
			high := c["high"].(float64)
			printed["reckoned"] = func(mm float64, s quantity.System) string { return quantity.FormatReckoned(mm, low, high, s) }
		}
		for system, want := range c {
			if s := quantity.System(system); s.Valid() {
				assert.Equal(t, want, printed[c["kind"].(string)](c["value"].(float64), s), "%v in %s", c, system)
			}
		}
	}
}
