package heats

import "math"

// How far a round may be hastened.
const (
	hasteMost   = 0.7 // of a step
	hasteMemory = 2   // steps
	hasteApart  = 0.1 // the squared sine of the angle between two steps that are told apart
)

// hastened shortens the way to a fixed point: the answer of a round moves against the last steps by the
// shares of them that bring the residual nearest to nothing (Anderson 1965, with two steps of memory).
type hastened struct {
	answer, residual []float64
	answers, steps   [][]float64 // by which answer and residual changed, the last first
}

// next is where the round after the one that made answer of x should begin.
func (h *hastened) next(x, answer []float64) []float64 {
	residual := make([]float64, len(answer))
	for i := range answer {
		residual[i] = answer[i]
		if i < len(x) {
			residual[i] -= x[i]
		}
	}
	if len(h.residual) == len(residual) {
		h.answers = append([][]float64{less(answer, h.answer)}, h.answers...)
		h.steps = append([][]float64{less(residual, h.residual)}, h.steps...)
		if len(h.steps) > hasteMemory {
			h.answers, h.steps = h.answers[:hasteMemory], h.steps[:hasteMemory]
		}
	}
	h.answer, h.residual = answer, residual
	shares := h.shares()
	if shares == nil {
		return answer
	}
	out := make([]float64, len(answer))
	for i, v := range answer {
		for k, share := range shares {
			v -= share * h.answers[k][i]
		}
		out[i] = math.Max(0, v)
	}
	return out
}

// shares are how much of each step goes back, by least squares; nil where there is none.
func (h *hastened) shares() []float64 {
	bound := func(v float64) float64 { return math.Max(-hasteMost, math.Min(hasteMost, v)) }
	if len(h.steps) == 0 {
		return nil
	}
	a := h.steps[0]
	aa, ar := dot(a, a), dot(a, h.residual)
	if aa == 0 {
		return nil
	}
	if len(h.steps) > 1 {
		b := h.steps[1]
		bb, ab, br := dot(b, b), dot(a, b), dot(b, h.residual)
		if det := aa*bb - ab*ab; det > hasteApart*aa*bb {
			return []float64{bound((ar*bb - br*ab) / det), bound((br*aa - ar*ab) / det)}
		}
	}
	return []float64{bound(ar / aa)}
}

func less(a, b []float64) []float64 {
	out := make([]float64, len(a))
	for i := range a {
		out[i] = a[i] - b[i]
	}
	return out
}

func dot(a, b []float64) (sum float64) {
	for i := range a {
		sum += a[i] * b[i]
	}
	return sum
}
