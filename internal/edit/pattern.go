package edit

import (
	"slices"
	"strings"

	"coldember/internal/doc"
)

var pattern = table[doc.Pattern]{
	exact: map[string]func(*doc.Pattern, Edit) *Problem{
		"name": name(func(d *doc.Pattern) *string { return &d.Name }),
		"tags": setTags,

		"design.tangKind": choice(func(d *doc.Pattern, v string) bool { return setTangKind(&d.Design, v) }),
		"design.tangForm": choice(func(d *doc.Pattern, v string) bool { return setTangForm(&d.Design, v) }),
		"design.flatBend": choice(func(d *doc.Pattern, v string) bool { return setFlatBend(&d.Design, v) }),
		"design.hole":     func(d *doc.Pattern, e Edit) *Problem { return drill(&d.Design, e) },
		"design.setDeg":   func(d *doc.Pattern, e Edit) *Problem { return setBevel(&d.Design, e) },

		"scale":          func(d *doc.Pattern, e Edit) *Problem { return scale(d, e, true, true, true) },
		"scaleLength":    func(d *doc.Pattern, e Edit) *Problem { return scale(d, e, true, false, false) },
		"scaleHeight":    func(d *doc.Pattern, e Edit) *Problem { return scale(d, e, false, true, false) },
		"scaleThickness": func(d *doc.Pattern, e Edit) *Problem { return scale(d, e, false, false, true) },
	},
	members: func(d *doc.Pattern) any { return d },
}

// Pattern makes edits on a copy of a pattern; nothing is changed if any field cannot
// be. Errors are *InvalidError.
func Pattern(d doc.Pattern, edits []Edit) (doc.Pattern, error) {
	out := doc.Copy(d)
	if err := each(edits, func(e Edit) *Problem { return pattern.edit(&out, e) }); err != nil {
		return d, err
	}
	if out.Allowances == d.Allowances {
		out.Allowances = d.Allowances.Follow(&d.Design, &out.Design)
	}
	return out, nil
}

func setTags(d *doc.Pattern, e Edit) *Problem {
	d.Tags = []string{}
	for t := range strings.SplitSeq(e.Text, ",") {
		if t = strings.TrimSpace(t); t != "" && !slices.Contains(d.Tags, t) {
			d.Tags = append(d.Tags, t)
		}
	}
	return nil
}

// How far a pattern is scaled at once.
const (
	leastScale = .2
	mostScale  = 5
)

func scale(d *doc.Pattern, e Edit, length, height, thickness bool) *Problem {
	k, bad := figure("scaleShare", e) // typed in per cent
	if bad != nil {
		return bad
	}
	if !(k >= leastScale && k <= mostScale) {
		return outside(e, "field.rangePercent", leastScale, mostScale)
	}
	by := func(this bool) float64 {
		if this {
			return k
		}
		return 1
	}
	d.Design = d.Design.Scaled(by(length), by(height), by(thickness))
	return nil
}
