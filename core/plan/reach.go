package plan

// Way is which way the steel must be moved at a station.
type Way string

// The ways. TooNarrow outranks every band of spread.
const (
	Lengthen  Way = "lengthen"
	Either    Way = "either"
	SpreadIt  Way = "spread"
	NarrowIt  Way = "narrow"
	UpsetIt   Way = "upset"
	TooNarrow Way = "tooNarrow"
)

// Feasibility is the reach at one station of the forged shape.
type Feasibility struct {
	XMm               float64 `json:"xMm"`
	HeightMm          float64 `json:"heightMm"`
	MeanThicknessMm   float64 `json:"meanThicknessMm"`
	AreaRatio         float64 `json:"areaRatio"`
	SpreadNeeded      float64 `json:"spreadNeeded"`
	SpreadReachable   float64 `json:"spreadReachable"`
	ReachableHeightMm float64 `json:"reachableHeightMm"`
	Way               Way     `json:"way" enum:"lengthen,either,spread,narrow,upset,tooNarrow"`
}
