package device

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"

	"coldember/internal/work"
)

// Client is an instrument's line to a shop: lines of JSON over HTTP, by the protocol that docs/readings.md tells.
type Client struct {
	To   string // the address of the shop
	Key  string
	HTTP *http.Client
}

// Errors of a line to the shop.
var (
	ErrKey   = errors.New("device: no key of the shop")
	ErrQuiet = errors.New("device: no piece is at the fire")
)

// AnswerError is an answer of the shop that is none of those of the protocol.
type AnswerError struct {
	Status string
	Body   string
}

func (e *AnswerError) Error() string { return "device: " + e.Status + " " + e.Body }

// mostAnswer bounds what is read of an answer.
const mostAnswer = 4 << 20

func (c *Client) do(ctx context.Context, method, path string, body []byte, out any) error {
	ctx, cancel := context.WithTimeout(ctx, 20*time.Second)
	defer cancel()
	r, err := http.NewRequestWithContext(ctx, method, strings.TrimRight(c.To, "/")+path, bytes.NewReader(body))
	if err != nil {
		return fmt.Errorf("device: %w", err)
	}
	r.Header.Set("Authorization", "Bearer "+c.Key)
	if body != nil {
		r.Header.Set("Content-Type", "application/x-ndjson")
	}
	res, err := c.HTTP.Do(r)
	if err != nil {
		return fmt.Errorf("device: %w", err)
	}
	defer func() { _ = res.Body.Close() }()
	data, err := io.ReadAll(io.LimitReader(res.Body, mostAnswer))
	switch {
	case err != nil:
		return fmt.Errorf("device: %w", err)
	case res.StatusCode == http.StatusUnauthorized:
		return ErrKey
	case res.StatusCode == http.StatusNotFound:
		return ErrQuiet
	case res.StatusCode != http.StatusOK:
		return &AnswerError{res.Status, string(data)}
	}
	if err := json.Unmarshal(data, out); err != nil {
		return fmt.Errorf("device: %w", err)
	}
	return nil
}

// Wanted is what is wanted at the fire. Errors are ErrKey, ErrQuiet, and those of the network.
func (c *Client) Wanted(ctx context.Context) (w work.Waiting, err error) {
	err = c.do(ctx, http.MethodGet, "/api/v1/readings/wanted", nil, &w)
	return w, err
}

// Answer is what became of a line.
type Answer struct {
	Seq    int    `json:"seq"`
	Taken  bool   `json:"taken"`
	Event  string `json:"event"`
	Fields []struct {
		Code    string `json:"code"`
		Message string `json:"message"`
	} `json:"fields"`
}

// Send tells lines. Errors are ErrKey, and those of the network.
func (c *Client) Send(ctx context.Context, lines ...work.ReadLine) (out []Answer, err error) {
	var b bytes.Buffer
	for _, l := range lines {
		one, err := json.Marshal(l)
		if err != nil {
			return nil, fmt.Errorf("device: %w", err)
		}
		b.Write(append(one, '\n'))
	}
	err = c.do(ctx, http.MethodPost, "/api/v1/readings", b.Bytes(), &out)
	return out, err
}
