package session

// Phase is where the piece is.
type Phase string

// The phases.
const (
	Ready    Phase = "ready" // cold, before the first heat of a sitting
	InFire   Phase = "fire"
	OutOf    Phase = "out"
	Away     Phase = "away" // work was broken off
	Finished Phase = "finished"
)

// Taken is a step as it was worked in one trip.
type Taken struct {
	Step   int    `json:"step"`
	Event  string `json:"event,omitempty" doc:"that ended it"`
	AtMs   int64  `json:"atMs"`
	Side   Side   `json:"side,omitempty"`
	Blows  int    `json:"blows,omitempty" doc:"where they were counted"`
	NotYet bool   `json:"notYet,omitempty" doc:"it was not done"`
	Past   bool   `json:"past,omitempty" doc:"it went past its figure"`
}

// Trip is one heat as it was taken. Times are nought where nothing told them.
type Trip struct {
	Number  int     `json:"number"`
	Heat    int     `json:"heat" doc:"of the course, as it began"`
	Sitting int     `json:"sitting"`
	InMs    int64   `json:"inMs,omitempty"`
	OutMs   int64   `json:"outMs"`
	FirstMs int64   `json:"firstMs,omitempty"`
	LastMs  int64   `json:"lastMs,omitempty"`
	EndMs   int64   `json:"endMs,omitempty" doc:"back in the fire, or laid down"`
	Assumed bool    `json:"assumed,omitempty" doc:"nobody said that it went back: it was taken as cold"`
	OutC    float64 `json:"outC" doc:"as hot as it came out"`
	EndC    float64 `json:"endC,omitempty"`
	Steps   []Taken `json:"steps"`
}

// Sitting is a stretch of work without a break.
type Sitting struct {
	FromMs int64 `json:"fromMs"`
	ToMs   int64 `json:"toMs,omitempty"`
	Heats  int   `json:"heats"`
}

// Told is an event that is kept as it was told: a reading, fault, note or picture, with the
// step and the heat that it belongs to.
type Told struct {
	Event
	OnMs    int64   `json:"onMs" doc:"the time, clocks set right"`
	OfStep  int     `json:"ofStep"`
	OfTrip  int     `json:"ofTrip" doc:"0: before the first"`
	OfHeat  int     `json:"ofHeat" doc:"of the course"`
	WantMm  float64 `json:"wantMm,omitempty" doc:"what was planned there"`
	Wanted  bool    `json:"wanted,omitempty"`
	Within  bool    `json:"within,omitempty" doc:"as near as it had to be"`
	DifferM float64 `json:"differMm,omitempty"`
}

// State is what a session has come to.
type State struct {
	Phase    Phase     `json:"phase" enum:"ready,fire,out,away,finished"`
	Step     int       `json:"step" doc:"in hand; as many as there are once all is done"`
	SinceMs  int64     `json:"sinceMs" doc:"when the phase began"`
	FromC    float64   `json:"fromC" doc:"how hot the piece was then"`
	Trips    []Trip    `json:"trips"`
	Sittings []Sitting `json:"sittings"`
	Told     []Told    `json:"told"`
	Clocks   []Clock   `json:"clocks"`
	Events   int       `json:"events"`
	LastID   string    `json:"lastId,omitempty" doc:"the last event, that the next has seen"`
	UndoID   string    `json:"undoId,omitempty" doc:"what would be taken back"`
	UndoKind Kind      `json:"undoKind,omitempty"`
	Sides    [2]int    `json:"sides" doc:"how often each side was worked: the mark's, the other"`
	FuelG    float64   `json:"fuelG,omitempty" doc:"left when it was last looked"`
	FuelAtMs int64     `json:"fuelAtMs,omitempty"`
	// Hardening: it went on to the treatment, of which so many steps are done.
	Hardening bool  `json:"hardening,omitempty"`
	Treat     int   `json:"treat"`
	TreatMs   int64 `json:"treatMs,omitempty" doc:"when the last of them was"`
	// CompletedMs is when the knife was finished, 0 before.
	CompletedMs int64 `json:"completedMs,omitempty"`
	// StartedMs is when the session began, 0 before.
	StartedMs int64 `json:"startedMs,omitempty"`
}
