package main

import (
	"fmt"
	"strings"

	"coldember/core/simulate"
	"coldember/internal/device"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

func simulateCommand() *cobra.Command {
	var data string
	var seed uint64
	var heats int
	c := &cobra.Command{
		Use: "simulate NAME", Short: "Forge a piece of work as a simulated piece of steel goes, and write its book", Args: cobra.ExactArgs(1),
		Long: "Takes the plan of a piece, by name or id, to the fire and forges it with an arm, a fire and a\nsteel drawn from the seed: heats, blows, readings and weight go into the book as if a smith\nhad told them. For trying the program out; nothing of it was forged.",
		RunE: func(c *cobra.Command, args []string) error {
			return withData(c.Context(), data, func(w *work.Work) error {
				all, _, err := w.Pieces(c.Context(), false)
				if err != nil {
					return err
				}
				for _, p := range all {
					if p.ID != args[0] && !strings.EqualFold(p.Doc.Name, args[0]) {
						continue
					}
					wish := simulate.Wish{Device: "simulated-" + work.RandomID(), Heats: heats, Hardens: heats == 0}
					f, events, err := device.Forge(c.Context(), w, p.ID, seed, wish)
					if err != nil {
						return err
					}
					_, b, err := w.BookOf(c.Context(), f.ID)
					if err != nil {
						return err
					}
					return printf(c.OutOrStdout(), "%s: %d events, %d heats of %d, %d blows\n", p.Doc.Name, len(events), b.Totals.Heats, f.Doc.Course.Totals.Heats, b.Totals.Blows)
				}
				return fmt.Errorf("there is no piece %q; coldember pieces lists them", args[0])
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "database file (default: your own work)")
	c.Flags().Uint64Var(&seed, "seed", 1, "of the hands, the fire and the steel")
	c.Flags().IntVar(&heats, "heats", 0, "so many heats, then broken off (0: to the end)")
	return c
}
