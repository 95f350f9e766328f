package plan

// Zone names from the point back.
const (
	ZonePoint   = "point"
	ZoneBlade   = "blade"
	ZoneRicasso = "ricasso"
	ZoneTang    = "tang"
)
