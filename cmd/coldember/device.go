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
	"coldember/internal/text"
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

// kindsInWords lists the instruments that there are.
func kindsInWords() string {
	var kinds []string
	for _, k := range session.Instruments() {
		kinds = append(kinds, string(k))
	}
	return strings.Join(kinds, ", ")
}

func deviceCommand() *cobra.Command {
	var o reporting
	c := &cobra.Command{
		Use: "device KIND", Args: wants(1, 1),
		RunE: func(c *cobra.Command, args []string) error {
			kind := session.Instrument(strings.ToLower(args[0]))
			if len(session.UnitsOf(kind)) == 0 && kind != session.Pedal {
				return sayError("cli.noInstrument", map[string]string{"found": args[0], "kinds": kindsInWords()})
			}
			if o.key == "" {
				return sayError("cli.keyMissing", nil)
			}
			return o.run(c.Context(), kind, c.InOrStdin(), c.OutOrStdout())
		},
	}
	c.Flags().StringVar(&o.to, "to", "http://"+serveAddr, "")
	c.Flags().StringVar(&o.print, "fingerprint", "", "")
	c.Flags().StringVar(&o.key, "key", "", "")
	c.Flags().StringVar(&o.id, "id", "", "")
	c.Flags().DurationVar(&o.every, "every", 5*time.Second, "")
	c.Flags().Uint64Var(&o.seed, "seed", 1, "")
	c.Flags().BoolVar(&o.once, "once", false, "")
	c.Flags().BoolVar(&o.auto, "auto", false, "")
	return c
}

// leastEvery keeps an instrument from pestering a shop.
const leastEvery = 50 * time.Millisecond

func (o *reporting) run(ctx context.Context, kind session.Instrument, in io.Reader, out io.Writer) error {
	if o.id == "" {
		o.id = string(kind)
	}
	if !strings.HasPrefix(o.id, session.StandIn) { // what it reads never was
		o.id = session.StandIn + o.id
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
				return sayError("cli.otherCertificate", nil)
			}
			return nil
		},
	}}}
}

// report reads once, and tells it.
func (o *reporting) report(ctx context.Context, client *device.Client, i *device.Instrument, out io.Writer) error {
	w, err := client.Wanted(ctx)
	if errors.Is(err, device.ErrQuiet) {
		return said(out, "cli.noSession", nil)
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
		return text.Say("cli.taken", map[string]string{"what": what})
	}
	why := make([]string, len(a.Fields))
	for i, f := range a.Fields {
		why[i] = f.Message
	}
	return text.Say("cli.notTaken", map[string]string{"what": what, "why": strings.Join(why, " ")})
}
