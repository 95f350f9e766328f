package api

import (
	"mime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAFileIsNamedAfterWhatIsInIt, and after nothing else.
func TestAFileIsNamedAfterWhatIsInIt(t *testing.T) {
	for name, want := range map[string]string{
		"Rigging knife, second": "Rigging knife- second.svg", "Messer für Åse": "Messer für Åse.svg", "../../etc/passwd": "etc-passwd.svg",
		"a\r\nSet-Cookie: x": "a--Set-Cookie- x.svg", "..": "cold-ember.svg", "nul": "cold-ember.svg", "": "cold-ember.svg", "x\u202egvs.exe": "x-gvs-exe.svg",
		strings.Repeat("long ", 200): strings.TrimSpace(strings.Repeat("long ", 12)) + ".svg",
	} {
		_, with, err := mime.ParseMediaType(download(name, ".svg"))
		require.NoError(t, err, name)
		assert.Equal(t, want, with["filename"], "%q", name)
	}
}
