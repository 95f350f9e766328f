package core_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// allowed is which rooms of the core each room may use: imports run one way.
var allowed = map[string][]string{
	"fact": {"quantity"}, "quantity": {}, "steel": {"quantity"}, "section": {"quantity"}, "thermal": {"steel"},
	"blade": {"fact", "section", "steel"}, "stock": {"fact", "steel"},
	"forge":    {"fact", "section", "steel", "thermal", "blade", "stock"},
	"plan":     {"fact", "billet", "blade", "finish", "forge", "harden", "section", "steel", "stock", "thermal"},
	"figure":   {"fact", "blade", "forge", "plan", "section", "stock", "thermal"},
	"route":    {"fact", "blade", "figure", "forge", "plan", "section", "steel", "stock", "thermal"},
	"heats":    {"fact", "blade", "figure", "forge", "plan", "route", "section", "steel", "stock", "thermal"},
	"review":   {"fact", "blade", "figure", "forge", "heats", "plan", "route", "section", "steel", "stock", "thermal"},
	"planner":  {"fact", "billet", "blade", "figure", "finish", "forge", "harden", "heats", "plan", "review", "route", "section", "steel", "stock", "thermal"},
	"whatif":   {"fact", "blade", "figure", "forge", "heats", "plan", "planner", "review", "route", "section", "steel", "stock", "thermal"},
	"session":  {"fact", "forge", "harden", "plan", "quantity", "steel", "thermal"},
	"simulate": {"fact", "harden", "plan", "planner", "session", "steel", "whatif"},
	"learn":    {"fact", "forge", "plan", "session"},
	"hour":     {"fact", "forge", "steel", "thermal"},
	"replan":   {"fact", "blade", "figure", "forge", "heats", "plan", "planner", "session", "steel"},
	"harden":   {"fact", "steel", "thermal"}, "photo": {}, "listen": {}, "colour": {"fact"}, "practice": {"blade", "colour", "fact", "forge", "plan", "section", "steel", "thermal"},
	"billet":  {"fact", "blade", "forge", "section", "steel"},
	"finish":  {"fact", "blade", "harden", "section", "steel"},
	"cutting": {"fact"}, "nest": {"fact", "stock"},
	"calc": {"fact", "billet", "blade", "cutting", "finish", "forge", "harden", "learn", "nest", "plan", "planner", "route", "section", "steel", "stock", "thermal", "quantity", "whatif"},
	// what tests share
	"planner/plantest": {"fact", "blade", "forge", "plan", "planner", "section", "steel", "stock"},
}

// forbidden would bring in an interface, a file, a clock or a network.
var forbidden = []string{"net/", "net/http", "os", "time", "database/", "html", "log", "gorm.io", "github.com/go-chi"}

// TestTheCoreStandsAlone keeps interface, storage, clock and files out of the
// core, and its rooms in their order.
func TestTheCoreStandsAlone(t *testing.T) {
	files := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		files++
		room := filepath.ToSlash(filepath.Dir(path))
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, i := range f.Imports {
			name, err := strconv.Unquote(i.Path.Value)
			require.NoError(t, err)
			for _, bad := range forbidden {
				assert.False(t, name == bad || (strings.HasSuffix(bad, "/") || strings.Contains(bad, ".")) && strings.HasPrefix(name, bad), "%s imports %s", path, name)
			}
			if inner, ok := strings.CutPrefix(name, "coldember/core/"); ok {
				assert.Contains(t, allowed[room], inner, "%s imports %s", path, name)
			} else {
				assert.False(t, strings.HasPrefix(name, "coldember/"), "%s imports %s", path, name)
			}
		}
		return nil
	})
	require.NoError(t, err)
	assert.Greater(t, files, 20)
}
