package server_test

import (
	"slices"
	"testing"
	"time"
)

// report gives median and 99th percentile of what was timed.
func report(b *testing.B, took []time.Duration) {
	b.Helper()
	slices.Sort(took)
	at := func(q float64) float64 { return float64(took[int(q*float64(len(took)-1))].Microseconds()) / 1000 }
	b.ReportMetric(at(.5), "ms/median")
	b.ReportMetric(at(.99), "ms/p99")
}
