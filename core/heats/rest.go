package heats

import (
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/route"
)

// RestAfterKg is the blows times the hammer's mass, before an arm should rest
// (judgement).
const RestAfterKg = 440.0

// rests marks the heats after which an arm should rest, by the blows it has
// struck since the last rest and what it swings.
func rests(r *route.Route, p *plan.Plan) {
	kg, swung := Swings(r, p), 0.0
	for i := range p.Heats {
		for _, part := range p.Heats[i].Parts {
			swung += part.Blows * kg[part.Operation]
		}
		if swung > RestAfterKg && i+1 < p.Totals.Heats {
			p.Heats[i].Rest, swung = true, 0
		}
	}
}

// Swings is what an arm swings at each operation, kg; nothing at a machine's.
func Swings(r *route.Route, p *plan.Plan) map[string]float64 {
	kg := map[string]float64{}
	for _, op := range p.Operations {
		switch {
		case op.Forging == nil:
		case op.Forging.Machine == "":
			kg[op.ID] = r.Req.Smith.HammerKg
		case op.Forging.Machine == string(forge.Striker):
			kg[op.ID] = r.Req.Smith.Machine.TupKg
		}
	}
	return kg
}
