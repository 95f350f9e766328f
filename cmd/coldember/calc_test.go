package main

import (
	"testing"

	"coldember/core/calc"
	"coldember/internal/text"

	"github.com/stretchr/testify/assert"
)

// TestEveryFieldIsSaidInTheCatalogue: what the help says of a field is what stands beside it in the laws, and in every language.
func TestEveryFieldIsSaidInTheCatalogue(t *testing.T) {
	said := 0
	for _, kind := range calc.Kinds() {
		for _, f := range calc.Fields(kind) {
			assert.Equal(t, f.Doc, fieldDoc(f), "%s: %s", kind, f.Name)
			assert.True(t, text.Has("calc.holds."+string(f.Holds)), f.Holds)
			if f.Doc != "" {
				said++
			}
		}
	}
	assert.Greater(t, said, 40)
}
