package replan

import (
	"math"

	"coldember/core/plan"
)

// Miss is where a piece that goes on from what was measured does not come to what is to be forged: by how much it is too
// high or too thick there, mm; less than nought is too low or too thin.
type Miss struct {
	Zone    string  `json:"zone" enum:"point,blade,ricasso,tang"`
	AtMm    float64 `json:"atMm" doc:"from the point of the forged piece"`
	HighMm  float64 `json:"highMm"`
	ThickMm float64 `json:"thickMm"`
	Why     Why     `json:"why" enum:"littleSteel,tooThick,tooHigh,drivenIn"`
}

// Why a place is missed.
type Why string

// Too little steel lies there for its height; it is thicker, or higher, than blows now bring it; or it is thinner than edge
// blows still gather.
const (
	LittleSteel Why = "littleSteel"
	TooThick    Why = "tooThick"
	TooHigh     Why = "tooHigh"
	DrivenIn    Why = "drivenIn"
)

// nearTargetMm is how near a piece has to come to what is to be forged.
const nearTargetMm = .3

// missShares are how far along a zone it is looked at; its very ends are steps.
var missShares = map[string][]float64{plan.ZoneBlade: {.1, .3, .5, .7, .9}, plan.ZoneRicasso: {.5}}

// missesOf are the places of blade and ricasso where a shape does not come to another, the worst of each zone.
func missesOf(shape, wanted []plan.Station) (out []Miss) {
	for _, zone := range []string{plan.ZoneBlade, plan.ZoneRicasso} {
		var worst *Miss
		for _, share := range missShares[zone] {
			is, ok := along(shape, zone, share)
			to, also := along(wanted, zone, share)
			if !ok || !also {
				continue
			}
			m := Miss{Zone: zone, AtMm: to.XMm, HighMm: is.HeightMm() - to.HeightMm(), ThickMm: is.ThicknessMm - to.ThicknessMm}
			if math.Max(math.Abs(m.HighMm), math.Abs(m.ThickMm)) <= nearTargetMm {
				continue
			}
			switch {
			case m.HighMm < -nearTargetMm && m.ThickMm <= nearTargetMm:
				m.Why = LittleSteel
			case m.ThickMm > nearTargetMm:
				m.Why = TooThick
			case m.HighMm > nearTargetMm:
				m.Why = TooHigh
			default:
				m.Why = DrivenIn
			}
			if worst == nil || m.far() > worst.far() {
				worst = &m
			}
		}
		if worst != nil {
			out = append(out, *worst)
		}
	}
	return out
}

func (m *Miss) far() float64 { return math.Max(math.Abs(m.HighMm), math.Abs(m.ThickMm)) }

// along is a shape at a share of one of its zones.
func along(shape []plan.Station, zone string, share float64) (plan.Station, bool) {
	from, to := math.Inf(1), math.Inf(-1)
	for i := range shape {
		if shape[i].Zone == zone {
			from, to = math.Min(from, shape[i].XMm), math.Max(to, shape[i].XMm)
		}
	}
	if !(to > from) {
		return plan.Station{}, false
	}
	return between(shape, from+share*(to-from)), true
}
