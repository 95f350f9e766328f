package steel_test

import (
	"fmt"

	"coldember/core/steel"
)

func Example() {
	g, _ := steel.Find("1084")
	hot, cold := steel.NewFlow(g.CarbonPct, 1050, 50), steel.NewFlow(g.CarbonPct, 850, 50)
	fmt.Printf("%.0f to %.0f °C; %.0f MPa hot, %.0f MPa at the end\n", g.ForgeLowC, g.ForgeHighC, hot.StressMPa(.2), cold.StressMPa(.2))
	// Output: 830 to 1150 °C; 153 MPa hot, 290 MPa at the end
}
