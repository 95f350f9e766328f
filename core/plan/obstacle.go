package plan

import (
	"coldember/core/fact"
)

// cannot are the warnings that say a bar will not do, whatever is done at the
// anvil.
var cannot = map[string]bool{
	"warn.volumeShort": true, "warn.tooNarrow": true, "warn.tooNarrowUpset": true, "warn.tooLight": true,
	"warn.barThin": true, "warn.ricassoThin": true, "warn.blankWide": true,
}

// Obstacle is the first reason why the plan's piece of stock will not do; its
// Code is empty where it will.
func (p *Plan) Obstacle() fact.Warning {
	for _, w := range p.Warnings {
		if w.Severity == fact.Stop && cannot[w.Code] {
			return w
		}
	}
	return fact.Warning{}
}
