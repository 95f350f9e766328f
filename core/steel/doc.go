// Package steel knows the grades: forging window, flow stress, tempering.
//
// Grades are found by their standard number (Find); the flow stress is Shida's law of
// 1969, exact in carbon 0.07–1.2 %, 700–1200 °C, strain to 0.7 and 0.1–100 strains a
// second: outside, it still answers and says so (Flow.InRange). Nothing here is changed
// once the program runs, so that everything may be asked from several goroutines.
package steel
