package session

import (
	"cmp"
	"container/heap"
	"slices"
)

// Order is the one order that a set of events implies: each after the one its device made
// before it, and after the last that its device had seen. What two devices did without
// knowing of each other is kept together by device, in the order of their names. Repeats
// count once. Where an event is missing, the others stand as if it had never been; where
// events claim to have seen each other in a ring, the ring is cut at its first by device and
// sequence. The answer depends on the set alone; it is new, and events are not changed.
func Order(events []Event) []Event {
	all := slices.Clone(events)
	slices.SortFunc(all, compare)
	seen := make(map[string]bool, len(all))
	all = slices.DeleteFunc(all, func(e Event) bool {
		if seen[e.ID] {
			return true
		}
		seen[e.ID] = true
		return false
	})
	at := make(map[string]int, len(all))
	for i := range all {
		at[all[i].ID] = i
	}
	o := ordering{all: all, waits: make([]int, len(all)), after: make([][]int, len(all)), taken: make([]bool, len(all))}
	for i := range all {
		if i > 0 && all[i-1].Device == all[i].Device {
			o.follow(i-1, i)
		}
		if j, ok := at[all[i].Saw]; ok && j != i && all[i].Saw != "" {
			o.follow(j, i)
		}
	}
	return o.run()
}

// compare orders by device and sequence, and by all else that could tell two events apart.
func compare(a, b Event) int {
	return cmp.Or(
		cmp.Compare(a.Device, b.Device), cmp.Compare(a.Seq, b.Seq), cmp.Compare(a.ID, b.ID),
		cmp.Compare(a.AtMs, b.AtMs), cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.Saw, b.Saw), cmp.Compare(a.Step, b.Step),
		cmp.Compare(a.Side, b.Side), cmp.Compare(a.Blows, b.Blows), cmp.Compare(a.Text, b.Text), cmp.Compare(a.Picture, b.Picture),
		cmp.Compare(a.Undoes, b.Undoes), cmp.Compare(a.OffMs, b.OffMs), a.Reading.compare(b.Reading), a.Fault.compare(b.Fault), a.Seen.compare(b.Seen), a.Final.compare(b.Final),
	)
}

func (r *Reading) compare(o *Reading) int {
	if r == nil || o == nil {
		return nils(r == nil, o == nil)
	}
	return cmp.Or(cmp.Compare(r.Quantity, o.Quantity), cmp.Compare(r.Mm, o.Mm), cmp.Compare(r.MassG, o.MassG), cmp.Compare(r.TempC, o.TempC), cmp.Compare(r.AtMm, o.AtMm), truth(r.Hot, o.Hot))
}

func (f *Fault) compare(o *Fault) int {
	if f == nil || o == nil {
		return nils(f == nil, o == nil)
	}
	return cmp.Or(cmp.Compare(f.Kind, o.Kind), cmp.Compare(f.AtMm, o.AtMm), cmp.Compare(f.DepthMm, o.DepthMm))
}

// truth puts what is not before what is.
func truth(a, b bool) int {
	switch {
	case a == b:
		return 0
	case b:
		return -1
	}
	return 1
}

// nils puts what is missing first.
func nils(a, b bool) int {
	switch {
	case a && !b:
		return -1
	case b && !a:
		return 1
	}
	return 0
}

// ordering takes events as soon as all that they follow are taken.
type ordering struct {
	all   []Event
	waits []int   // for how many
	after [][]int // who follows
	taken []bool
	ready places
}

// places is a heap of places in a list that is sorted already.
type places []int

func (p places) Len() int           { return len(p) }
func (p places) Less(i, j int) bool { return p[i] < p[j] }
func (p places) Swap(i, j int)      { p[i], p[j] = p[j], p[i] }

// Push and Pop are the heap's.
func (p *places) Push(x any) { *p = append(*p, x.(int)) } //nolint:forcetypeassert // only places are pushed

// Pop takes the last.
func (p *places) Pop() any {
	last := (*p)[len(*p)-1]
	*p = (*p)[:len(*p)-1]
	return last
}

func (o *ordering) follow(first, then int) {
	o.waits[then]++
	o.after[first] = append(o.after[first], then)
}

func (o *ordering) run() []Event {
	out := make([]Event, 0, len(o.all))
	for i, n := range o.waits {
		if n == 0 {
			o.ready = append(o.ready, i)
		}
	}
	heap.Init(&o.ready)
	stuck, next := 0, -1
	for len(out) < len(o.all) {
		i := next // the same device goes on, where it may
		if i < 0 {
			switch {
			case len(o.ready) > 0:
				i, _ = heap.Pop(&o.ready).(int)
			default:
				for o.taken[stuck] {
					stuck++
				}
				i = stuck
			}
		}
		if next = -1; o.taken[i] {
			continue
		}
		o.taken[i] = true
		out = append(out, o.all[i])
		for _, k := range o.after[i] {
			if o.waits[k]--; o.waits[k] != 0 || o.taken[k] {
				continue
			}
			if k == i+1 && o.all[k].Device == o.all[i].Device {
				next = k
				continue
			}
			heap.Push(&o.ready, k)
		}
	}
	return out
}
