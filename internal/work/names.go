package work

import (
	"context"
	"fmt"
	"regexp"
	"strings"
)

// counted is the number at the end of a name that was made by counting.
var counted = regexp.MustCompile(` \d{1,4}$`)

// freeName is a name, or the first of those counted from it that none has yet.
func freeName(name string, taken []string) string {
	has := map[string]bool{}
	for _, t := range taken {
		has[strings.ToLower(t)] = true
	}
	if !has[strings.ToLower(name)] {
		return name
	}
	base := counted.ReplaceAllString(name, "")
	for n := 2; ; n++ {
		if next := fmt.Sprintf("%s %d", base, n); !has[strings.ToLower(next)] {
			return next
		}
	}
}

// freePieceName is a name that no piece of work has yet, archived ones too.
func (w *Work) freePieceName(ctx context.Context, name string) (string, error) {
	var taken []string
	for _, archived := range []bool{false, true} {
		all, _, err := w.Pieces(ctx, archived)
		if err != nil {
			return "", err
		}
		for _, p := range all {
			taken = append(taken, p.Doc.Name)
		}
	}
	return freeName(name, taken), nil
}

// freePatternName is a name that no pattern has yet, archived ones too.
func (w *Work) freePatternName(ctx context.Context, name string) (string, error) {
	var taken []string
	for _, archived := range []bool{false, true} {
		all, _, err := w.Patterns(ctx, archived)
		if err != nil {
			return "", err
		}
		for _, p := range all {
			taken = append(taken, p.Doc.Name)
		}
	}
	return freeName(name, taken), nil
}
