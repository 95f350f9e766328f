package harden

import (
	"math"

	"coldember/core/steel"
	"coldember/core/thermal"
)

// FromSpine is how the heat that an edge quench leaves in the spine tempers the edge.
type FromSpine struct {
	HotC      float64   `json:"hotC" doc:"of the spine as the edge leaves the bath"`
	ColdC     float64   `json:"coldC"`
	DipMm     float64   `json:"dipMm"`
	StepS     float64   `json:"stepS"`
	EdgeC     []float64 `json:"edgeC" doc:"in even steps of time"`
	MiddleC   []float64 `json:"middleC"`
	SpineC    []float64 `json:"spineC"`
	WantC     float64   `json:"wantC" doc:"for a minute, what the wanted temper is for an hour"`
	HourC     float64   `json:"hourC" doc:"the wanted temper, one hour"`
	CoolAtS   float64   `json:"coolAtS" doc:"to be cooled off when the edge is there; 0: it never is"`
	MostEdgeC float64   `json:"mostEdgeC"`
	SoftMm    float64   `json:"softMm" doc:"of the height, from the spine, hotter than what is answered for at that moment"`
}

// Bounds of heat drawn from a spine.
const (
	spineWatchS = 180.0
	spineStepS  = .5
	briefS      = 60.0
	softC       = 335.0 // past the last temper colour
)

// lossInAir is what a face loses to the air of a shop and by radiation, W/m²K.
func lossInAir(c float64) float64 {
	const zero = 273.15
	hot, cold := c+zero, thermal.AmbientC+zero
	return thermal.AirWPerM2K + thermal.CoolEmissivity*thermal.StefanBoltzmann*(hot*hot+cold*cold)*(hot+cold)
}

// DrawFromSpine follows the heat through the blade's middle, whose edge was dipped and is as cold
// as it left the bath, and whose spine is hotC. A temper of a minute has to be hotter than one of
// an hour for the same: Hollomon and Jaffe's parameter, which for seconds reads some 20 °C low.
// Errors are *RangeError, of a blade that was quenched whole too.
func DrawFromSpine(c Case, hotC float64) (FromSpine, error) {
	t := c.Treatment
	if len(c.Profiles) == 0 {
		return FromSpine{}, &RangeError{"profiles", 1, 1000}
	}
	p := c.Profiles[len(c.Profiles)/2]
	if err := within("dipMm", t.DipMm, 1, p.HeightMm-1); err != nil {
		return FromSpine{}, err
	}
	if err := within("hotC", hotC, 150, 800); err != nil {
		return FromSpine{}, err
	}
	thick := resampled(c.left().of(&p), spineCells)
	s := Spine{HeightMm: p.HeightMm, HotFromMm: t.DipMm, HotC: hotC, ColdC: math.Min(t.coldC(), hotC)}
	run, err := s.Run(thick, spineWatchS, spineStepS, lossInAir)
	if err != nil {
		return FromSpine{}, err
	}
	out := FromSpine{HotC: hotC, ColdC: s.ColdC, DipMm: t.DipMm, StepS: run.StepS}
	want := t.WantHardness
	if want == 0 {
		want = c.WantHRC
	}
	oneHour := t
	oneHour.Hours, oneHour.Times, oneHour.OvenC = 1, 1, 0
	out.HourC = Temper(c.Grade, oneHour, want).OvenC
	if out.HourC > 0 {
		out.WantC = steel.SameTemperC(steel.HollomonJaffe(out.HourC, 1), briefS/3600)
	}
	n := len(thick)
	for i, row := range run.TempC {
		out.EdgeC, out.MiddleC, out.SpineC = append(out.EdgeC, math.Round(row[0])), append(out.MiddleC, math.Round(row[n/2])), append(out.SpineC, math.Round(row[n-1]))
		out.MostEdgeC = math.Max(out.MostEdgeC, row[0])
		if out.CoolAtS == 0 && i > 0 && out.WantC > 0 && row[0] >= out.WantC {
			out.CoolAtS = float64(i) * run.StepS
			for k := n - 1; k >= 0 && row[k] > softC; k-- {
				out.SoftMm += p.HeightMm / float64(n)
			}
		}
	}
	return out, nil
}

// spineCells of a height.
const spineCells = 80

// resampled is a profile at the middles of so many cells.
func resampled(t []float64, n int) []float64 {
	out := make([]float64, n)
	for i := range out {
		at := (float64(i) + .5) / float64(n) * float64(len(t)-1)
		k := min(int(at), len(t)-2)
		out[i] = t[k] + (t[k+1]-t[k])*(at-float64(k))
	}
	return out
}

// coldC is as hot as the dipped edge leaves the bath.
func (t *Treatment) coldC() float64 {
	if t.OutC > 0 {
		return t.OutC
	}
	return usualOutC
}
