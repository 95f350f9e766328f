package colour

import (
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write the paint of hot steel anew")

// paintFile has what hot steel is painted with, for the page: as it is seen in a dark shop.
const paintFile = "paint.json"

// painted are the temperatures of the file, °C; what is colder than its first glow is not painted by it.
func painted() (out [][4]int) {
	for c := 550; c <= 1300; c += 25 {
		rgb := Seen(float64(c), DarkShop).RGB
		out = append(out, [4]int{c, rgb[0], rgb[1], rgb[2]})
	}
	return out
}

// TestThePageIsPaintedAsTheEyeIsTrained: card, anvil and bench have the paint of the trainer.
func TestThePageIsPaintedAsTheEyeIsTrained(t *testing.T) {
	if *update {
		var lines []string
		for _, p := range painted() {
			lines = append(lines, fmt.Sprintf(" [%d, %d, %d, %d]", p[0], p[1], p[2], p[3]))
		}
		require.NoError(t, os.WriteFile(paintFile, []byte("[\n"+strings.Join(lines, ",\n")+"\n]\n"), 0o644)) //nolint:gosec // a file of the source
	}
	raw, err := os.ReadFile(paintFile)
	require.NoError(t, err)
	var got [][4]int
	require.NoError(t, json.Unmarshal(raw, &got))
	assert.Equal(t, painted(), got, "run with -update")
}

// TestThePaintAgreesWithItsWord in the usual school: by hue, from red over orange to yellow.
func TestThePaintAgreesWithItsWord(t *testing.T) {
	for _, k := range []struct {
		c, least, most, value float64
		word                  string
	}{
		{650, 0, 5, .55, "dark red"},
		{730, 0, 8, .7, "dull cherry"},
		{790, 3, 14, .8, "cherry"},
		{850, 8, 20, .9, "bright cherry"},
		{920, 15, 27, 1, "light red"},
		{980, 24, 34, 1, "orange"},
		{1050, 30, 40, 1, "bright orange"},
		{1120, 36, 45, 1, "yellow-orange"},
		{1180, 43, 55, 1, "yellow"},
		{1250, 46, 58, 1, "light yellow"},
	} {
		h, s, v := Seen(k.c, DarkShop).RGB.hsv()
		assert.True(t, h >= k.least && h <= k.most, "%s at %g is painted with a hue of %.0f°", k.word, k.c, h)
		assert.LessOrEqual(t, v, k.value, k.word)
		if k.c >= 1180 {
			assert.Less(t, s, .65, k.word)
		}
	}
	_, s, v := Seen(1300, DarkShop).RGB.hsv()
	assert.True(t, s < .42 && v > .97, "white is nearly so: %.2f", s)
}

// TestHueThereAndBack.
func TestHueThereAndBack(t *testing.T) {
	for _, c := range []RGB{{250, 20, 3}, {12, 200, 90}, {3, 4, 250}, {90, 90, 90}, {255, 200, 0}} {
		assert.Equal(t, c, fromHSV(c.hsv()))
	}
}
