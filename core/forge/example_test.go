package forge_test

import (
	"fmt"

	"coldember/core/forge"
	"coldember/core/steel"
)

func Example() {
	g, _ := steel.Find("1075")
	bar := forge.Bar{Cells: []forge.Cell{{Zone: "blade", VolumeMm3: 5000, WidthMm: 25, ThicknessMm: 6, EdgeMm: 6, SpineMm: 6, TempC: 20}}}
	run, _ := forge.NewRun(forge.Setup{Smith: forge.NewSmith(forge.Sure), Fire: forge.NewFire(), Steel: g}, bar)
	to := forge.Target{WidthMm: 28, ThicknessMm: 4.5, EdgeMm: 4.5, SpineMm: 4.5}
	err := run.Do(&forge.Operation{ID: "profile", Kind: forge.Profile, Face: forge.RoundFace, Targets: []forge.Target{to}})
	c := run.Bar.Cells[0]
	fmt.Printf("%v, %d heats, %.0f mm long\n", err, len(run.Heats), c.LengthMm())
	// Output: <nil>, 1 heats, 40 mm long
}
