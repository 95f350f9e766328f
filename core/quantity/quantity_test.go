package quantity_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/quantity"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestParseLength(t *testing.T) {
	for text, want := range map[string]float64{
		"6mm": 6, "25.4mm": 25.4, "2,5": 2.5, "1.2 cm": 12, "110+15": 125, "110 - 15": 95,
		"3/8in": 9.525, "1 1/4 in": 31.75, `1 1/4"`: 31.75, "1in + 6mm": 31.4, " 12 ": 12,
		"-3": -3, "1 1/2 in - 1/4in": 31.75, "0.5 m": 500, "1\u00a01/4 in": 31.75,
	} {
		got, err := quantity.Parse(text, quantity.Length, quantity.Metric)
		require.NoError(t, err, text)
		assert.InDelta(t, want, got, 1e-9, text)
	}
	got, err := quantity.Parse("1 1/4", quantity.Length, quantity.Imperial)
	require.NoError(t, err)
	assert.InDelta(t, 31.75, got, 1e-12)
}

func TestParsePointsAtTheOffendingCharacter(t *testing.T) {
	for text, want := range map[string]quantity.ParseError{
		"":           {Offset: 0, Code: quantity.CodeEmpty},
		"   ":        {Offset: 3, Code: quantity.CodeEmpty},
		"12 furlong": {Offset: 3, Code: quantity.CodeUnit, Found: "f"},
		"12x":        {Offset: 2, Code: quantity.CodeUnit, Found: "x"},
		"1/0":        {Offset: 2, Code: quantity.CodeZeroDivisor, Found: "0"},
		"110+":       {Offset: 4, Code: quantity.CodeMissingNumber},
		"1 2":        {Offset: 3, Code: quantity.CodeUnexpected},
		"abc":        {Offset: 0, Code: quantity.CodeMissingNumber, Found: "a"},
		"9999999999": {Offset: 0, Code: quantity.CodeTooLarge, Found: "9"},
		"NaN":        {Offset: 0, Code: quantity.CodeMissingNumber, Found: "N"},
	} {
		_, err := quantity.Parse(text, quantity.Length, quantity.Metric)
		var pe *quantity.ParseError
		require.True(t, errors.As(err, &pe), text)
		assert.Equal(t, want.Code, pe.Code, text)
		assert.Equal(t, want.Offset, pe.Offset, text)
		assert.Equal(t, want.Found, pe.Found, text)
	}
}

func TestParseOtherKinds(t *testing.T) {
	for _, c := range []struct {
		text string
		kind quantity.Kind
		sys  quantity.System
		want float64
	}{
		{"1.1 kg", quantity.Mass, quantity.Metric, 1100},
		{"2 lb", quantity.Mass, quantity.Metric, 907.18474},
		{"1080", quantity.Temperature, quantity.Metric, 1080},
		{"1975 °F", quantity.Temperature, quantity.Metric, 1079.4444},
		{"1975", quantity.Temperature, quantity.Imperial, 1079.4444},
		{"8", quantity.Percent, quantity.Metric, 0.08},
		{"8 %", quantity.Percent, quantity.Metric, 0.08},
		{"1.3", quantity.Number, quantity.Metric, 1.3},
	} {
		got, err := quantity.Parse(c.text, c.kind, c.sys)
		require.NoError(t, err, c.text)
		assert.InDelta(t, c.want, got, 1e-3, c.text)
	}
}

func TestPrint(t *testing.T) {
	assert.Equal(t, "1 1/4 in", quantity.FormatLength(31.75, quantity.Imperial))
	assert.Equal(t, "3/8 in", quantity.FormatLength(9.525, quantity.Imperial))
	assert.Equal(t, "127.3 mm", quantity.FormatLength(127.26, quantity.Metric))
	assert.Equal(t, "2.2 mm", quantity.FormatThickness(2.2, quantity.Metric))
	assert.Equal(t, "0.087 in", quantity.FormatThickness(2.2, quantity.Imperial))
	assert.Equal(t, "1.25 kg", quantity.FormatMass(1250, quantity.Metric))
	assert.Equal(t, "1060 °C", quantity.FormatTemperature(1061.8, quantity.Metric))
	assert.Equal(t, "0 mm", quantity.FormatLength(-0.01, quantity.Metric))
}

func TestEditedLengthReadsBackIdentically(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mm := rapid.Float64Range(-5000, 5000).Draw(t, "mm")
		for _, s := range []quantity.System{quantity.Metric, quantity.Imperial} {
			text := quantity.EditLength(mm, s)
			back, err := quantity.Parse(text, quantity.Length, s)
			if err != nil || (back != mm && math.Abs(mm) > 0) {
				t.Fatalf("%v printed as %q read back as %v (%v)", mm, text, back, err)
			}
		}
	})
}

func FuzzParse(f *testing.F) {
	for _, seed := range []string{"1 1/4 in", "110+15", "25.4mm", "1/0", "--", "\xff", "3/8″", "°"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		for _, k := range []quantity.Kind{quantity.Length, quantity.Mass, quantity.Temperature, quantity.Percent} {
			v, err := quantity.Parse(text, k, quantity.Imperial)
			var pe *quantity.ParseError
			if err != nil && (!errors.As(err, &pe) || pe.Offset > len(text)) {
				t.Fatalf("%q: %v", text, err)
			}
			if err == nil && (math.IsNaN(v) || math.IsInf(v, 0)) {
				t.Fatalf("%q gave %v", text, v)
			}
		}
	})
}

// TestFractionsAsTheyAreWritten: joined by a space, a dash, or letters of their own; what is
// a sum stays one.
func TestFractionsAsTheyAreWritten(t *testing.T) {
	for text, inches := range map[string]float64{
		"1-1/4": 1.25, "1 1/4": 1.25, "1¼": 1.25, `1¼"`: 1.25, "1 ¼": 1.25, "¾": .75, "1-¾": 1.75, "4½": 4.5, "4½ in": 4.5, "3⁄8": .375, "1-3⁄8": 1.375,
		"110-15": 95, "110+15": 125, "2 - 1/4": 1.75, "2-1/4-1/8": 2.125, "1.5-1/4": 1.25, "½+¼": .75, "3/8": .375, "25,4 mm": 1, "0,125": .125, "5 cm": 5 / 2.54,
	} {
		got, err := quantity.Parse(text, quantity.Length, quantity.Imperial)
		require.NoError(t, err, text)
		assert.InDelta(t, inches*25.4, got, 1e-9, text)
	}
	for text, code := range map[string]quantity.Code{
		"1,250": quantity.CodeThousands, "12,500 mm": quantity.CodeThousands, "1¼½": quantity.CodeUnexpected, "½ 3": quantity.CodeUnexpected, "1-/4": quantity.CodeMissingNumber,
	} {
		_, err := quantity.Parse(text, quantity.Length, quantity.Metric)
		var pe *quantity.ParseError
		require.ErrorAs(t, err, &pe, text)
		assert.Equal(t, code, pe.Code, text)
	}
	spanish := quantity.Metric.WithDecimal(",")
	require.True(t, spanish.Valid())
	for text, want := range map[string]float64{"1,250": 1.25, "12,500 mm": 12.5, "0.125": .125, "12.5": 12.5} {
		got, err := quantity.Parse(text, quantity.Length, spanish)
		require.NoError(t, err, text)
		assert.InDelta(t, want, got, 1e-12, text)
	}
	_, err := quantity.Parse("1.250", quantity.Length, spanish)
	var pe *quantity.ParseError
	require.ErrorAs(t, err, &pe)
	assert.Equal(t, quantity.CodeThousands, pe.Code)
	got, err := quantity.Parse("25,4", quantity.Length, quantity.Metric)
	require.NoError(t, err)
	assert.InDelta(t, 25.4, got, 1e-12)
}
