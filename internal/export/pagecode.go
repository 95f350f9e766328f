package export

import (
	"bytes"
	"compress/flate"
	"encoding/json"
	"fmt"
	"image"
	"io"
	"strings"

	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"
	"rsc.io/qr"
)

// codeMark begins the text in the squares of a printed pattern, with the version of how it is packed.
// What follows is the pattern's JSON, without spaces, deflated (RFC 1951), in base 45 (RFC 9285):
// letters that a square code packs most densely, and that any reader of such codes shows.
const codeMark = "COLDEMBER:1:"

// Bounds of a code that is read.
const (
	mostCodeText   = 4296 // letters that a square code holds
	mostCodeJSON   = 256 << 10
	base45Alphabet = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:"
)

// CodeOf is a pattern as the text of a square code. A picture behind it stays where it is.
func CodeOf(s Subject) (string, error) {
	text, err := json.Marshal(patternFileOf(s))
	if err != nil {
		return "", fmt.Errorf("export: %w", err)
	}
	var b bytes.Buffer
	z, err := flate.NewWriter(&b, flate.BestCompression)
	if err != nil {
		return "", fmt.Errorf("export: %w", err)
	}
	if _, err := z.Write(text); err != nil {
		return "", fmt.Errorf("export: %w", err)
	}
	if err := z.Close(); err != nil {
		return "", fmt.Errorf("export: %w", err)
	}
	out := codeMark + toBase45(b.Bytes())
	if len(out) > mostCodeText {
		return "", &FileError{Code: "patternFile.noCode"}
	}
	return out, nil
}

// ReadCode is the JSON of a pattern in the text of a square code; ok is false for a text that is none.
// Errors are *FileError.
func ReadCode(text string) (data []byte, ok bool, err error) {
	rest, ok := strings.CutPrefix(strings.Trim(text, " \t\r\n"), codeMark)
	if !ok {
		return nil, false, nil
	}
	packed, err := fromBase45(rest)
	if err != nil {
		return nil, true, err
	}
	data, err = io.ReadAll(io.LimitReader(flate.NewReader(bytes.NewReader(packed)), mostCodeJSON+1))
	if err != nil || len(data) > mostCodeJSON {
		return nil, true, &FileError{Code: "patternFile.code"}
	}
	return data, true, nil
}

// ScanCode reads the square code in a picture of a printed pattern. Errors are *FileError.
func ScanCode(img image.Image) (string, error) {
	bits, err := gozxing.NewBinaryBitmapFromImage(img)
	if err != nil {
		return "", &FileError{Code: "patternFile.noSquares"}
	}
	found, err := qrcode.NewQRCodeReader().Decode(bits, map[gozxing.DecodeHintType]any{gozxing.DecodeHintType_TRY_HARDER: true})
	if err != nil {
		return "", &FileError{Code: "patternFile.noSquares"}
	}
	return found.GetText(), nil
}

// toBase45 writes bytes by RFC 9285: two of them are three letters, one alone two.
func toBase45(data []byte) string {
	var b strings.Builder
	for i := 0; i < len(data); i += 2 {
		n, letters := int(data[i]), 2
		if i+1 < len(data) {
			n, letters = n<<8|int(data[i+1]), 3
		}
		for range letters {
			b.WriteByte(base45Alphabet[n%45])
			n /= 45
		}
	}
	return b.String()
}

// fromBase45 reads them.
func fromBase45(text string) ([]byte, error) {
	wrong := &FileError{Code: "patternFile.code"}
	if len(text)%3 == 1 || len(text) > mostCodeText {
		return nil, wrong
	}
	var out []byte
	for len(text) > 0 {
		letters := min(3, len(text))
		n, place := 0, 1
		for i := range letters {
			v := strings.IndexByte(base45Alphabet, text[i])
			if v < 0 {
				return nil, wrong
			}
			n += v * place
			place *= 45
		}
		text = text[letters:]
		switch {
		case letters == 3 && n < 1<<16:
			out = append(out, byte(n>>8), byte(n))
		case letters == 2 && n < 1<<8:
			out = append(out, byte(n))
		default:
			return nil, wrong
		}
	}
	return out, nil
}

// quietSquares is the white margin that readers want around a code, in squares.
const quietSquares = 4

// squares draws a code, each row of black squares that touch as one bar, and answers with its side.
func (s *sheet) squares(text string, x, y, wideMm float64) error {
	c, err := qr.Encode(text, qr.M)
	if err != nil {
		c, err = qr.Encode(text, qr.L)
	}
	if err != nil {
		return &FileError{Code: "patternFile.noCode"}
	}
	k := wideMm / float64(c.Size+2*quietSquares)
	s.pdf.SetFillColor(0, 0, 0)
	for row := range c.Size {
		for col := 0; col < c.Size; col++ {
			if !c.Black(col, row) {
				continue
			}
			from := col
			for col+1 < c.Size && c.Black(col+1, row) {
				col++
			}
			s.pdf.Rect(x+float64(from+quietSquares)*k, y+float64(row+quietSquares)*k, float64(col-from+1)*k, k, "F")
		}
	}
	return nil
}
