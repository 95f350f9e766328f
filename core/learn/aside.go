package learn

import (
	"cmp"
	"math"
	"slices"
)

// How far a piece may be from the others, and be believed without a question (judgement).
const (
	asideOver = 2.0  // times what the others say: something else may have gone on (1.8–2.5)
	agreeOver = 1.25 // times each other: two say the same (1.15–1.35)
	leastMany = 3    // pieces, from which they are held against each other, not against the law
)

// Whys of records that were asked about.
const (
	whyAsks = "learn.asks" // it is set aside until somebody has said
	whyLeft = "learn.left" // somebody has
)

// setAside holds the records of one factor against each other: one that is off by more than a factor of two is set
// aside with a question, unless another that is so far off agrees with it, for a true beginner is two of them. What
// the shop has said of a piece goes before.
func setAside(list []Record, answers []Answer, law float64) {
	var counted []int
	for i := range list {
		r := &list[i]
		r.Asked = false
		for _, a := range answers {
			if a.Session == r.Session && (r.Counts || r.Why == whyAsks || r.Why == whyLeft) {
				r.Asked, r.Counts, r.Why = true, a.Counts, ""
				if !a.Counts {
					r.Why = whyLeft
				}
			}
		}
		if r.Counts {
			counted = append(counted, i)
		}
	}
	if len(counted) == 0 {
		return
	}
	middle := math.Log(law)
	if len(counted) >= leastMany {
		middle = middleOf(list, counted)
	}
	var far []int
	for _, i := range counted {
		if r := &list[i]; !r.Asked && math.Abs(math.Log(r.Ratio)-middle) > math.Log(asideOver) {
			far = append(far, i)
		}
	}
	for _, i := range far {
		agrees := slices.ContainsFunc(far, func(k int) bool {
			return k != i && math.Abs(math.Log(list[i].Ratio/list[k].Ratio)) <= math.Log(agreeOver)
		})
		if !agrees {
			list[i].Counts, list[i].Why = false, whyAsks
		}
	}
}

// middleOf is the middle logarithm of some records; of an even number the one that is nearer to the law.
func middleOf(list []Record, of []int) float64 {
	logs := make([]float64, len(of))
	for k, i := range of {
		logs[k] = math.Log(list[i].Ratio)
	}
	slices.Sort(logs)
	n := len(logs)
	if n%2 == 1 {
		return logs[n/2]
	}
	return slices.MinFunc(logs[n/2-1:n/2+1], func(a, b float64) int { return cmp.Compare(math.Abs(a), math.Abs(b)) })
}
