package main

import (
	"strconv"
	"strings"

	"coldember/core/session"
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
		Use: "simulate NAME", Args: wants(1, 1),
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
					wish := simulate.Wish{Device: session.StandIn + work.RandomID(), Heats: heats, Hardens: heats == 0}
					f, events, err := device.Forge(c.Context(), w, p.ID, seed, wish)
					if err != nil {
						return err
					}
					_, b, err := w.BookOf(c.Context(), f.ID)
					if err != nil {
						return err
					}
					return said(c.OutOrStdout(), "cli.simulated", map[string]string{
						"name": p.Doc.Name, "events": strconv.Itoa(len(events)), "heats": strconv.Itoa(b.Totals.Heats), "planned": strconv.Itoa(f.Doc.Course.Totals.Heats), "blows": strconv.Itoa(b.Totals.Blows),
					})
				}
				return sayError("cli.noPiece", map[string]string{"found": args[0]})
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	c.Flags().Uint64Var(&seed, "seed", 1, "")
	c.Flags().IntVar(&heats, "heats", 0, "")
	return c
}
