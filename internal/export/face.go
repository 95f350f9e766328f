package export

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"html"
	"image"
	"image/color"
	"image/png"

	"coldember/core/billet"
)

// faceGapPx is between the two faces of a picture.
const faceGapPx = 12

// FacePNG is both faces as they etch, the front above the back, on nothing.
func FacePNG(front, back billet.Etched) ([]byte, error) {
	img := image.NewNRGBA(image.Rect(0, 0, front.Nx, 2*front.Ny+faceGapPx))
	for k, e := range []billet.Etched{front, back} {
		for j := range e.Ny {
			for i := range e.Nx {
				if v := e.Pixel[j*e.Nx+i]; v > 0 {
					img.SetNRGBA(i, j+k*(e.Ny+faceGapPx), color.NRGBA{v, v, v, 255})
				}
			}
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		return nil, fmt.Errorf("export: face: %w", err)
	}
	return b.Bytes(), nil
}

// FaceSVG is the same at true size: the picture, so long as the blade is.
func FaceSVG(name string, front, back billet.Etched, lengthMm float64) ([]byte, error) {
	raw, err := FacePNG(front, back)
	if err != nil {
		return nil, err
	}
	high := (front.ToY - front.FromY) / float64(front.Ny) * float64(2*front.Ny+faceGapPx)
	var b bytes.Buffer
	fmt.Fprintf(&b, "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%.3fmm\" height=\"%.3fmm\" viewBox=\"0 0 %.3f %.3f\">\n<title>%s</title>\n", lengthMm, high, lengthMm, high, html.EscapeString(name))
	fmt.Fprintf(&b, "<image width=\"%.3f\" height=\"%.3f\" preserveAspectRatio=\"none\" href=\"data:image/png;base64,%s\"/>\n</svg>\n", lengthMm, high, base64.StdEncoding.EncodeToString(raw))
	return b.Bytes(), nil
}
