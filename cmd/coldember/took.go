package main

import (
	"strings"

	"coldember/internal/work"

	"github.com/spf13/cobra"
)

// tookCommand logs how long steps of finishing took: STEP=MINUTES each.
func tookCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use: "took NAME STEP=MINUTES...", Args: wants(2, anyNumber),
		RunE: func(c *cobra.Command, args []string) error {
			took := map[string]string{}
			for _, a := range args[1:] {
				step, minutes, ok := strings.Cut(a, "=")
				if !ok {
					return sayError("cli.wrongTook", map[string]string{"found": a})
				}
				took[step] = minutes
			}
			return withData(c.Context(), data, func(w *work.Work) error {
				ids, err := pieceNames(c, w, args[:1])
				if err != nil {
					return err
				}
				shop, err := w.Shop(c.Context())
				if err != nil {
					return err
				}
				if err := w.NoteFinished(c.Context(), ids[0], work.FinalTyped{Took: took, Units: shop.Doc.System()}); err != nil {
					return err
				}
				return said(c.OutOrStdout(), "cli.took", map[string]string{"name": args[0]})
			})
		},
	}
	c.Flags().StringVar(&data, "data", "", "")
	return c
}
