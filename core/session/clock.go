package session

import "sort"

// aloneMs is by how much a device's clock may be off before it is set right: less is the time
// that a message takes.
const aloneMs = 1500

// Clock is how far a device's clock is off.
type Clock struct {
	Device string `json:"device"`
	OffMs  int64  `json:"offMs" doc:"so far behind the server's"`
	// Wrong is of one that is off by more than a minute.
	Wrong bool `json:"wrong,omitempty"`
}

// wrongMs is what is worth telling of.
const wrongMs = 60_000

// clocks sets the clocks of all devices by the server's, from when their events were heard of:
// the least of what was measured, since a message can only be late.
func clocks(events []Event) map[string]int64 {
	off := map[string]int64{}
	for i := range events {
		e := &events[i]
		if was, ok := off[e.Device]; e.OffMs != 0 && (!ok || abs(e.OffMs) < abs(was)) {
			off[e.Device] = e.OffMs
		}
	}
	for d, ms := range off {
		if abs(ms) < aloneMs {
			delete(off, d)
		}
	}
	return off
}

func clockList(off map[string]int64) []Clock {
	out := []Clock{}
	for d, ms := range off {
		out = append(out, Clock{Device: d, OffMs: ms, Wrong: abs(ms) > wrongMs})
	}
	sort.Slice(out, func(i, j int) bool { return out[i].Device < out[j].Device })
	return out
}

func abs(v int64) int64 {
	if v < 0 {
		return -v
	}
	return v
}
