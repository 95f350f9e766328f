package drawing

import (
	"math"

	"coldember/core/blade"
)

// block is a drawing within the drawing; the entities are one too.
type block struct {
	base    blade.Node
	paths   []path
	inserts []insert
}

// insert places a block; line tells where the file says so.
type insert struct {
	name string
	by   []affine
	line int
}

// Bounds of what blocks may multiply to.
const (
	maxDepth  = 8
	maxCopies = 100 // of one insert
)

func (d *dxf) beginBlock(kind string, ps []pair) error {
	d.finish()
	d.into = &d.root
	if kind == "ENDBLK" {
		return nil
	}
	v, err := values(ps, 10, 20)
	if err != nil {
		return err
	}
	d.into = &block{base: blade.Node{v[0], v[1]}}
	d.blocks[text(ps, 2)] = d.into
	return nil
}

// insert reads where a block is placed: at 10/20, scaled by 41/42, turned by 50,
// in columns and rows.
func (d *dxf) insert(ps []pair) error {
	d.finish()
	v, err := values(ps, 10, 20, 41, 42, 50, 70, 71, 44, 45)
	if err != nil {
		return err
	}
	for _, scale := range []int{2, 3} {
		if v[scale] == 0 {
			v[scale] = 1
		}
	}
	cols, rows := int(math.Max(1, v[5])), int(math.Max(1, v[6]))
	in := insert{name: text(ps, 2), line: d.line}
	if cols > maxCopies || rows > maxCopies || cols*rows > maxCopies {
		return &Error{Code: "drawing.tooMany", Line: in.line}
	}
	turned := translate(v[0], v[1]).then(rotate(v[4] * math.Pi / 180))
	for i := range cols {
		for k := range rows {
			in.by = append(in.by, turned.then(translate(float64(i)*v[7], float64(k)*v[8])).then(affine{v[2], 0, 0, v[3], 0, 0}))
		}
	}
	d.into.inserts = append(d.into.inserts, in)
	return nil
}

func text(ps []pair, code int) string {
	for _, p := range ps {
		if p.code == code {
			return p.value
		}
	}
	return ""
}

// expand follows the inserts of a block, and theirs.
func (d *dxf) expand(b *block, m affine, depth int) ([]path, error) {
	var out []path
	for _, p := range b.paths {
		out = append(out, m.path(p))
	}
	for _, in := range b.inserts {
		inner := d.blocks[in.name]
		if inner == nil || depth >= maxDepth {
			return nil, &Error{Code: "drawing.blocks", Line: in.line, Detail: clip(in.name)}
		}
		for _, by := range in.by {
			paths, err := d.expand(inner, m.then(by).then(translate(-inner.base[0], -inner.base[1])), depth+1)
			if err != nil {
				return nil, err
			}
			if out = append(out, paths...); len(out) > maxRuns {
				return nil, &Error{Code: "drawing.tooMany", Line: in.line}
			}
		}
	}
	return out, nil
}
