package review

import (
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/route"
)

// warnOrder says of every need that a forced order breaks what comes of it.
func warnOrder(ops []*forge.Operation, soakC float64, add adder) {
	for _, b := range route.BrokenNeeds(ops) {
		var f fact.Figures
		if b.Before == string(forge.Harden) {
			f = fact.Figures{"soakC": soakC, "limitC": temperMostC}
		}
		add("warn.order."+b.Code[len("need."):], fact.Warn, fact.Where{Operation: b.Operation}, f)
	}
}
