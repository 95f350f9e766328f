package text_test

import (
	"strings"
	"testing"

	"coldember/internal/text"

	"github.com/stretchr/testify/assert"
)

// TestGivenNamesAreStoredAsCodes: what the program named is read in the language that is spoken, a number behind it or not; what
// somebody typed stays.
func TestGivenNamesAreStoredAsCodes(t *testing.T) {
	t.Cleanup(func() { text.Use(text.English) })
	for _, l := range text.Languages() {
		text.Use(l)
		seen := map[string]string{}
		for _, code := range text.Codes() {
			if !strings.HasPrefix(code, "starter.") && code != "shop.ownHand" {
				continue
			}
			name := text.Say(code, nil)
			assert.Empty(t, seen[name], "%s: %s and %s have one name", l, code, seen[name])
			seen[name] = code
			assert.Equal(t, "#"+code, text.Coded(name, l))
			assert.Equal(t, "#"+code+" 12", text.Coded(name+" 12", l))
			assert.Equal(t, name+" 12", text.Named("#"+code+" 12"))
			assert.Equal(t, name, text.Named("#"+code))
		}
	}
	for _, typed := range []string{"", "Grandfather's", "#1", "# starter.camp", "#starter.none", "#pieces.title", "#nav.book 2", "Campo 3", "a\nb"} {
		assert.Equal(t, typed, text.Named(text.Coded(typed, text.English)), "%q", typed)
	}
	text.Use("es")
	assert.Equal(t, "Camp knife", text.Coded("Camp knife", "es"), "somebody's own English")
	assert.Equal(t, "12,5", text.Local("12.5"))
	assert.Equal(t, "a.b 1.", text.Local("a.b 1."))
}
