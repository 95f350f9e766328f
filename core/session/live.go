package session

// Live is a session as one screen has it: it goes on by itself from what it knows, whether or
// not anybody else hears of it. It is one goroutine's.
type Live struct {
	course *Course
	events []Event
	known  map[string]bool
	state  State
}

// NewLive opens a course without events.
func NewLive(c *Course) (*Live, error) {
	if err := c.Validate(); err != nil {
		return nil, err
	}
	l := &Live{course: c, known: map[string]bool{}}
	l.state = Fold(c, nil)
	return l, nil
}

// Add takes events, those it has already in the form in which they come last: how far a clock
// is off is only known once they were heard of.
func (l *Live) Add(events []Event) {
	for _, e := range events {
		if !l.known[e.ID] {
			l.known[e.ID] = true
			l.events = append(l.events, e)
			continue
		}
		for i := len(l.events) - 1; i >= 0; i-- {
			if l.events[i].ID == e.ID {
				l.events[i] = e
				break
			}
		}
	}
	l.state = Fold(l.course, l.events)
}

// Drop forgets an event that was refused.
func (l *Live) Drop(id string) {
	for i := range l.events {
		if l.events[i].ID == id {
			l.events = append(l.events[:i:i], l.events[i+1:]...)
			delete(l.known, id)
			l.state = Fold(l.course, l.events)
			return
		}
	}
}

// Shown is all that a screen shows at a moment.
type Shown struct {
	View  View  `json:"view"`
	Next  Kind  `json:"next,omitempty" enum:"in,out,done,back,toHarden,treated" doc:"what going on does; nothing once all is done"`
	State Brief `json:"state"`
}

// Brief is of a state what a screen shows beside the view.
type Brief struct {
	LastID   string  `json:"lastId"`
	UndoID   string  `json:"undoId"`
	UndoKind Kind    `json:"undoKind,omitempty"`
	Sides    [2]int  `json:"sides"`
	Told     []Told  `json:"told" doc:"the last few"`
	Clocks   []Clock `json:"clocks"`
	Events   int     `json:"events"`
	Steps    []Taken `json:"steps" doc:"of the heat in hand"`
}

// lastTold is how many readings, faults and notes a screen shows.
const lastTold = 6

// Show is what a screen shows at a moment of its device's own clock.
func (l *Live) Show(device string, nowMs int64) Shown {
	for _, c := range l.state.Clocks {
		if c.Device == device {
			nowMs += c.OffMs
		}
	}
	s := &l.state
	v := s.Show(l.course, nowMs)
	b := Brief{LastID: s.LastID, UndoID: s.UndoID, UndoKind: s.UndoKind, Sides: s.Sides, Clocks: s.Clocks, Events: s.Events, Told: s.Told, Steps: []Taken{}}
	if n := len(b.Told); n > lastTold {
		b.Told = b.Told[n-lastTold:]
	}
	if n := len(s.Trips); n > 0 && v.Phase == OutOf {
		b.Steps = s.Trips[n-1].Steps
	}
	return Shown{View: v, Next: s.Next(l.course, &v), State: b}
}
