package main

import (
	"bufio"
	"context"
	"crypto/tls"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"

	"coldember/core/session"
	"coldember/internal/device"
	"coldember/internal/shelf"
	"coldember/internal/work"

	"github.com/spf13/cobra"
)

// reporting is how a simulated instrument reports.
type reporting struct {
	to, key, id string
	print       string // of the certificate that is trusted
	every       time.Duration
	seed        uint64
	once, auto  bool
}

func deviceCommand() *cobra.Command {
	var o reporting
	var kinds []string
	for _, k := range session.Instruments() {
		kinds = append(kinds, string(k))
	}
	c := &cobra.Command{
		Use: "device KIND", Short: "Be a simulated " + strings.Join(kinds, ", ") + " that reports to a shop", Args: cobra.ExactArgs(1), ValidArgs: kinds,
		Long: "Reads the simulated piece of the session at the fire and reports it as an instrument would, with\nnoise, readings that fail, and another unit once in a while. The key is given in Shop, Instruments.\nThe protocol is told in docs/readings.md. A pedal is pressed with Enter, or by itself with --auto.",
		RunE: func(c *cobra.Command, args []string) error {
			kind := session.Instrument(strings.ToLower(args[0]))
			if len(session.UnitsOf(kind)) == 0 && kind != session.Pedal {
				return fmt.Errorf("there is no instrument %q: want %s", args[0], strings.Join(kinds, ", "))
			}
			return o.run(c.Context(), kind, c.InOrStdin(), c.OutOrStdout())
		},
	}
	c.Flags().StringVar(&o.to, "to", "http://"+serveAddr, "address of the shop")
	c.Flags().StringVar(&o.print, "fingerprint", "", "of the certificate of the shelf, as Shop shows it, where --to is that of the shelf")
	c.Flags().StringVar(&o.key, "key", "", "key of the instrument")
	c.Flags().StringVar(&o.id, "id", "", "id of the instrument (default: its kind)")
	c.Flags().DurationVar(&o.every, "every", 5*time.Second, "how often it reads")
	c.Flags().Uint64Var(&o.seed, "seed", 1, "of its errors")
	c.Flags().BoolVar(&o.once, "once", false, "read once, then end")
	c.Flags().BoolVar(&o.auto, "auto", false, "a pedal presses itself when it is time")
	_ = c.MarkFlagRequired("key")
	return c
}

// leastEvery keeps an instrument from pestering a shop.
const leastEvery = 50 * time.Millisecond

func (o *reporting) run(ctx context.Context, kind session.Instrument, in io.Reader, out io.Writer) error {
	if o.id == "" {
		o.id = string(kind)
	}
	client := &device.Client{To: o.to, Key: o.key, HTTP: o.http()}
	i := device.NewInstrument(kind, o.id, o.seed, int(time.Now().UnixMilli()))
	press := make(chan struct{})
	if kind == session.Pedal && !o.auto && !o.once {
		go func() {
			defer close(press)
			for s := bufio.NewScanner(in); s.Scan(); {
				press <- struct{}{}
			}
		}()
	}
	for {
		if kind == session.Pedal && !o.auto && !o.once {
			select {
			case <-ctx.Done():
				return nil
			case _, more := <-press:
				if !more {
					return nil
				}
			}
		}
		if err := o.report(ctx, client, i, out); err != nil {
			return err
		}
		if o.once {
			return nil
		}
		if kind != session.Pedal || o.auto {
			select {
			case <-ctx.Done():
				return nil
			case <-time.After(max(leastEvery, o.every)):
			}
		}
	}
}

// http is a client that trusts the one certificate of a fingerprint, where there is one.
func (o *reporting) http() *http.Client {
	if o.print == "" {
		return &http.Client{}
	}
	return &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{
		MinVersion: tls.VersionTLS12, InsecureSkipVerify: true, //nolint:gosec // it is verified below, by its fingerprint
		VerifyConnection: func(s tls.ConnectionState) error {
			if len(s.PeerCertificates) == 0 || !strings.EqualFold(shelf.Fingerprint(s.PeerCertificates[0].Raw), strings.TrimSpace(o.print)) {
				return errors.New("the certificate is another: compare its fingerprint with the one in Shop")
			}
			return nil
		},
	}}}
}

// report reads once, and tells it.
func (o *reporting) report(ctx context.Context, client *device.Client, i *device.Instrument, out io.Writer) error {
	w, err := client.Wanted(ctx)
	if errors.Is(err, device.ErrQuiet) {
		return printf(out, "no piece is at the fire\n")
	}
	if err != nil {
		return err
	}
	if i.Kind == session.Pedal && o.auto && w.LeftS > 0 {
		return nil
	}
	line, ok, err := i.Read(ctx, &w)
	if err != nil || !ok {
		return err
	}
	answers, err := client.Send(ctx, line)
	if err != nil {
		return err
	}
	for _, a := range answers {
		if err := printf(out, "%s\n", answered(line, a)); err != nil {
			return err
		}
	}
	return nil
}

// answered says what became of a line.
func answered(l work.ReadLine, a device.Answer) string {
	what := strings.TrimSpace(fmt.Sprintf("%s %g %s", l.Kind, l.Value, l.Unit))
	if l.Unit == "" {
		what = l.Kind
	}
	if a.Taken {
		return what + ": taken"
	}
	why := make([]string, len(a.Fields))
	for i, f := range a.Fields {
		why[i] = f.Message
	}
	return what + ": not taken. " + strings.Join(why, " ")
}
