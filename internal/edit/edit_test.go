package edit_test

import (
	"os"
	"regexp"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/quantity"
	"coldember/core/stock"
	"coldember/internal/doc"
	"coldember/internal/edit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func piece() doc.Piece {
	bar := stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 1000}
	return doc.Piece{Name: "Knife", StockID: "s1", Request: plan.NewRequest(blade.Starters()[0].Design, "80CrV2", bar, forge.Steady)}
}

func one(field, text string) []edit.Edit {
	return []edit.Edit{{Field: field, Text: text, Units: quantity.Metric}}
}

// problem is the one problem of an edit that cannot be.
func problem(t *testing.T, err error) edit.Problem {
	t.Helper()
	var bad *edit.InvalidError
	require.ErrorAs(t, err, &bad)
	require.Len(t, bad.Fields, 1)
	return bad.Fields[0]
}

// TestWhatAFieldCannotTakeIsRefusedWhereItIsTyped, with its code, and changes nothing.
func TestWhatAFieldCannotTakeIsRefusedWhereItIsTyped(t *testing.T) {
	for _, c := range []struct{ field, text, code string }{
		{"choices.curve", "banana", "field.choice"},
		{"choices.method", "", "field.choice"},
		{"choices.order", "corners,banana", "field.choice"},
		{"choices.order", "", "field.choice"},
		{"choices.forced", "yes", "field.unknown"},
		{"choices.stamp", "maybe", "field.choice"},
		{"smith.skill", "magic", "field.choice"},
		{"smith.machine.dies", "flat", "field.choice"},
		{"smith.machine.kind", "press", "field.unknown"},
		{"design.use", "cutlery", "field.choice"},
		{"design.grind.kind", "wavy", "field.choice"},
		{"design.handle.material", "horn", "field.unknown"},
		{"design.tangKind", "none", "field.choice"},
		{"design.tangForm", "wings", "field.choice"},
		{"design.flatBend", "maybe", "field.choice"},
		{"design.hole", "slot", "field.slot"},
		{"design.hand", "200mm; 100mm", "field.hand"},
		{"design.hand", "80", "outline.pair"},
		{"design.hole", "delete 3", "outline.noNode"},
		{"design.lengthMm", "two hands", "quantity.missingNumber"},
		{"design.lengthMm", "1e9", "quantity.unit"},
		{"design.lengthMm", "9999999", "quantity.tooLarge"},
		{"steelId", "unobtainium", "field.steel"},
		{"sizing.lossMode", "guess", "field.choice"},
		{"bar.form", "cloud", "field.choice"},
		{"bar.dead.0.why", "hole", "field.unknown"},
		{"origin", "meteor", "field.choice"},
		{"origin.id", "coilSpring", "field.unknown"},
		{"origin.acknowledge", "plating", "field.choice"},
		{"version", "7", "field.unknown"},
		{"tool.profile.face", "spoon", "field.choice"},
		{"tool.bevel.face", "flat", "field.unknown"},
		{"tool.profile2x.face", "flat", "field.unknown"},
		{"taper.add", "x", "quantity.missingNumber"},
		{"taper.9", "1; 2", "outline.noNode"},
		{"outline.add", "belly 3", "field.choice"},
		{"outline.edge.x", "1; 2", "field.unknown"},
		{"picture.scale", "1 2; 3 4; 5", "field.unknown"},
		{"name", "  ", "field.nameMissing"},
		{"name", strings.Repeat("long ", 60), "field.tooLong"},
		{"smith.hand", `{"hammerKg":1,"surprise":2}`, "field.choice"},
		{"nothing", "1", "field.unknown"},
		{"design", "1", "field.unknown"},
		{"", "1", "field.unknown"},
	} {
		d := piece()
		out, err := edit.Piece(d, one(c.field, c.text))
		p := problem(t, err)
		assert.Equal(t, c.code, p.Code, "%s = %q", c.field, c.text)
		assert.Equal(t, c.field, p.Field)
		assert.Equal(t, piece(), out, "%s changed something", c.field)
		assert.Equal(t, piece(), d)
	}
}

// TestOneBadEditLosesNoneOfTheOthers: all that cannot be are told, and none is made.
func TestOneBadEditLosesNoneOfTheOthers(t *testing.T) {
	edits := append(one("design.lengthMm", "x"), append(one("choices.curve", "sweep"), one("smith.skill", "y")...)...)
	out, err := edit.Piece(piece(), edits)
	var bad *edit.InvalidError
	require.ErrorAs(t, err, &bad)
	require.Len(t, bad.Fields, 2)
	assert.Equal(t, 0, bad.Fields[0].Offset)
	assert.Equal(t, "x", bad.Fields[0].Found)
	assert.Equal(t, piece(), out)
}

func TestFieldsOfEveryKindAreTaken(t *testing.T) {
	out, err := edit.Piece(piece(), []edit.Edit{
		{Field: "design.lengthMm", Text: "4 1/2 in"},
		{Field: "smith.hammerKg", Text: "2 lb"},
		{Field: "sizing.thumbLossFraction", Text: "8"},
		{Field: "fire.stopC", Text: "1500 F"},
		{Field: "choices.harden", Text: "forged"},
		{Field: "choices.harden", Text: ""},
		{Field: "choices.order", Text: "corners, twist2"},
		{Field: "tool.profile2.face", Text: "round"},
		{Field: "bar.widthMm", Text: "30"},
	})
	require.NoError(t, err)
	r := out.Request
	assert.InDelta(t, 114.3, r.Design.LengthMm, 1e-9)
	assert.InDelta(t, .907, r.Smith.HammerKg, 1e-3)
	assert.InDelta(t, .08, r.Sizing.ThumbLossFraction, 1e-12)
	assert.InDelta(t, 815.6, r.Fire.StopC, .1)
	assert.Empty(t, r.Choices.Harden, "what is usual")
	assert.Equal(t, []string{"corners", "twist2"}, r.Choices.Order)
	assert.Equal(t, []plan.ToolUse{{Operation: "profile2", Face: forge.RoundFace}}, r.Choices.Tools)
	assert.Empty(t, out.StockID, "a bar that was changed is no longer the one on the rack")
	assert.Equal(t, "s1", piece().StockID)
}

// TestTheShopSurvivesWithoutSmiths: the last may be taken out and one put in again, in
// one go.
func TestTheShopSurvivesWithoutSmiths(t *testing.T) {
	out, err := edit.Shop(doc.NewShop(), append(one("smiths.remove", "0"), one("smiths.add", "Newcomer")...))
	require.NoError(t, err)
	require.Len(t, out.Smiths, 1)
	assert.Equal(t, "Newcomer", out.Smiths[0].Name)
	assert.NoError(t, out.Validate())
	for _, c := range [][2]string{{"demo", "true"}, {"smiths.7.skill", "sure"}, {"hammers.add", "golden"}, {"hearths.remove", "-1"}, {"likelihood.spark", "50"}, {"likelihood.spark.x.y", "50"}} {
		_, err := edit.Shop(doc.NewShop(), one(c[0], c[1]))
		assert.Equal(t, c[0], problem(t, err).Field)
	}
}

// TestEveryFieldOfTheGrammarIsThere: the comment that is the grammar names no field that
// does not exist, for what is not a placeholder.
func TestEveryFieldOfTheGrammarIsThere(t *testing.T) {
	src, err := os.ReadFile("edit.go")
	require.NoError(t, err)
	section := strings.Split(string(src), "A piece of work")[1]
	section = strings.Split(section, "A pattern (fields")[0]
	found := 0
	for _, m := range regexp.MustCompile(`(?m)^//\t([a-z]\S*[a-z])(?:, (\S+), (\S+))?\s`).FindAllStringSubmatch(section, -1) {
		for _, field := range m[1:] {
			if field == "" || strings.ContainsAny(field, "NF") || strings.Contains(field, "ID") {
				continue
			}
			found++
			if _, err := edit.Piece(piece(), one(field, "\x00")); err != nil {
				p := problem(t, err)
				assert.False(t, p.Code == "field.unknown" && !strings.HasPrefix(field, "picture"), field)
			}
		}
	}
	assert.Greater(t, found, 20)
}

// TestNoTextBreaksAnEdit: whatever is typed into whatever field, it is taken or refused
// with the field's name, and never half.
func TestNoTextBreaksAnEdit(t *testing.T) {
	fields := []string{
		"design.lengthMm", "design.hand", "design.hole", "taper.add", "taper.1", "outline.add", "outline.spine.1", "outline.delete", "choices.order",
		"tool.profile.face", "smith.hand", "bar.form", "bar.lengthMm", "allowances.zones", "origin", "picture.scale", "smiths.0.hammerKg", "dead.add", "test.spark",
	}
	rapid.Check(t, func(t *rapid.T) {
		e := one(rapid.SampledFrom(fields).Draw(t, "field"), rapid.OneOf(rapid.String(), rapid.StringMatching(`[0-9 .,;/+\-a-z]{0,12}`)).Draw(t, "text"))
		before := piece()
		out, err := edit.Piece(before, e)
		if err != nil {
			var bad *edit.InvalidError
			require.ErrorAs(t, err, &bad)
			for _, f := range bad.Fields {
				require.NotEmpty(t, f.Field)
				require.LessOrEqual(t, f.Offset, len(f.Text))
			}
			require.Equal(t, before, out)
		}
		_, _ = edit.Stock(doc.Stock{Piece: stock.Usual(stock.Flat), Count: 1}, e, forge.NewFire())
		_, _ = edit.Shop(doc.NewShop(), e)
	})
}

// TestAPatternIsShapedAsAPieceIs: the same words give it tang, form, slot, bend and bevel.
func TestAPatternIsShapedAsAPieceIs(t *testing.T) {
	d := doc.Pattern{Name: "Knife", Tags: []string{}, Design: blade.Starters()[0].Design, Allowances: blade.ThickAndGrind.Allowances()}
	var err error
	for _, e := range [][2]string{{"design.tangKind", "full"}, {"design.tangForm", "swell"}, {"design.hole", "slot"}, {"design.flatBend", "bent"}, {"design.setDeg", "5"}} {
		d, err = edit.Pattern(d, one(e[0], e[1]))
		require.NoError(t, err, e)
		require.NoError(t, d.Validate(), e)
	}
	assert.NotNil(t, d.Design.Tang.Outline)
	assert.Len(t, d.Design.Tang.Holes, 1)
	assert.NotNil(t, d.Design.FlatBend)
	assert.InDelta(t, 5, d.Design.BevelSetDeg(), 1e-9)
	d, err = edit.Pattern(d, one("design.tangKind", "hidden"))
	require.NoError(t, err)
	require.NoError(t, d.Validate(), "its outline and its slot go with the full tang")
	_, err = edit.Pattern(d, one("design.tangForm", "swell"))
	assert.Error(t, err, "only a full tang has one")
}

// TestADeadStretchOfTheWidthHasAWidth by the edit as by what is stored.
func TestADeadStretchOfTheWidthHasAWidth(t *testing.T) {
	d, err := edit.NewStock(stock.Flat, nil, forge.NewFire())
	require.NoError(t, err)
	got, err := edit.Stock(d, one("dead.add", "10; 40; wear; 5; 12"), forge.NewFire())
	require.NoError(t, err)
	assert.Equal(t, []stock.Dead{{FromMm: 10, ToMm: 40, Why: "wear", FromAcrossMm: 5, ToAcrossMm: 12}}, got.Piece.Dead)
	_, err = edit.Stock(d, one("dead.add", "10; 40; wear; 12; 5"), forge.NewFire())
	assert.Equal(t, "stock.dead", problem(t, err).Code)
	got.Piece.Dead[0].ToAcrossMm = 3
	assert.ErrorContains(t, got.Validate(), "toAcrossMm")
}

// TestAMistypedReadingExplainsItsOrder at its place, whatever is wrong with it.
func TestAMistypedReadingExplainsItsOrder(t *testing.T) {
	for text, code := range map[string]string{"42": "finish.readingOrder", "42; 20": "finish.readingOrder", "42; twenty; 3": "finish.readingOrder", "42; 20; 3; 1; 2": "finish.readingOrder", "-4; 20; 3": "finish.readingOrder"} {
		var inv *edit.InvalidError
		_, err := edit.Piece(doc.Piece{}, []edit.Edit{{Field: "finish.reading.add", Text: text, Units: quantity.Metric}})
		require.ErrorAs(t, err, &inv, text)
		assert.Equal(t, code, inv.Fields[0].Code, text)
		assert.Equal(t, "finish.reading.add", inv.Fields[0].Field, text)
	}
	for _, text := range []string{"42; 20; .3", "42; 20; left; .3", "42; x; front; .3", "42; 20; front; deep"} {
		var inv *edit.InvalidError
		_, err := edit.Piece(doc.Piece{}, []edit.Edit{{Field: "finish.pit.add", Text: text, Units: quantity.Metric}})
		require.ErrorAs(t, err, &inv, text)
		assert.Equal(t, "finish.pitOrder", inv.Fields[0].Code, text)
	}
}

// TestAllowancesGoWithTheSize of the blade while they are a school's; a smith's own stay, and what is forged is forged.
func TestAllowancesGoWithTheSize(t *testing.T) {
	small := []edit.Edit{{Field: "design.lengthMm", Text: "45", Units: quantity.Metric}, {Field: "design.heightMm", Text: "14", Units: quantity.Metric}}
	d := piece()
	out, err := edit.Piece(d, small)
	require.NoError(t, err)
	assert.Equal(t, blade.ThickAndGrind.AllowancesFor(&out.Request.Design), out.Request.Allowances)
	assert.Less(t, out.Request.Allowances.FaceMm, d.Request.Allowances.FaceMm)

	own, err := edit.Piece(d, append(one("allowances.faceMm", "0.45"), small...))
	require.NoError(t, err)
	assert.InDelta(t, .45, own.Request.Allowances.FaceMm, 1e-9)

	forged, err := edit.Piece(d, one("finish.reading.add", "20; 5; 3; 0"))
	require.NoError(t, err)
	forged, err = edit.Piece(forged, small)
	require.NoError(t, err)
	assert.Equal(t, d.Request.Allowances, forged.Request.Allowances)
}
