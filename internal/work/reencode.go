package work

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/jpeg"
	"image/png"
)

// jpegQuality of pictures that are written again: no difference can be seen behind an
// outline.
const jpegQuality = 92

// redrawn decodes a picture whole and writes it again: nothing but what is seen is kept
// of the file, and half a picture is none. A photograph that says which side of it is up
// is turned. What was a photograph becomes a JPEG again.
func redrawn(data []byte, photograph bool) (out []byte, format string, size image.Point, err error) {
	img, format, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, "", size, err
	}
	var b bytes.Buffer
	if format == "png" && !photograph {
		err = png.Encode(&b, img)
	} else {
		format = "jpeg"
		img = upright(img, orientation(data))
		err = jpeg.Encode(&b, img, &jpeg.Options{Quality: jpegQuality})
	}
	return b.Bytes(), format, img.Bounds().Size(), err
}

// orientation is what a photograph says of which side is up, 1 to 8 (Exif 2.3, tag
// 0x0112); 1 where it says nothing.
func orientation(data []byte) int {
	for at := 2; at+4 <= len(data) && data[at] == 0xff && data[at+1] != 0xda; {
		n := int(binary.BigEndian.Uint16(data[at+2:]))
		if n < 2 || at+2+n > len(data) {
			return 1
		}
		if part := data[at+4 : at+2+n]; data[at+1] == 0xe1 && bytes.HasPrefix(part, []byte("Exif\x00\x00")) {
			return tagOf(part[6:])
		}
		at += 2 + n
	}
	return 1
}

// tagOf finds the orientation in the first directory of a TIFF head.
func tagOf(tiff []byte) int {
	if len(tiff) < 8 {
		return 1
	}
	var order binary.ByteOrder = binary.LittleEndian
	if tiff[0] == 'M' {
		order = binary.BigEndian
	}
	at := int(order.Uint32(tiff[4:]))
	if at < 8 || at+2 > len(tiff) {
		return 1
	}
	entries := int(order.Uint16(tiff[at:]))
	for at += 2; entries > 0 && at+12 <= len(tiff); at, entries = at+12, entries-1 {
		if order.Uint16(tiff[at:]) == 0x0112 {
			if v := int(order.Uint16(tiff[at+8:])); v >= 1 && v <= 8 {
				return v
			}
		}
	}
	return 1
}

// upright turns and mirrors a picture as its orientation says.
func upright(img image.Image, how int) image.Image {
	if how == 1 {
		return img
	}
	b := img.Bounds()
	w, h := b.Dx(), b.Dy()
	from := map[int]func(x, y int) (int, int){
		2: func(x, y int) (int, int) { return w - 1 - x, y },
		3: func(x, y int) (int, int) { return w - 1 - x, h - 1 - y },
		4: func(x, y int) (int, int) { return x, h - 1 - y },
		5: func(x, y int) (int, int) { return y, x },
		6: func(x, y int) (int, int) { return y, h - 1 - x },
		7: func(x, y int) (int, int) { return w - 1 - y, h - 1 - x },
		8: func(x, y int) (int, int) { return w - 1 - y, x },
	}[how]
	across, down := w, h
	if how >= 5 { // lying on its side
		across, down = h, w
	}
	out := image.NewRGBA(image.Rect(0, 0, across, down))
	for y := range out.Rect.Dy() {
		for x := range out.Rect.Dx() {
			fx, fy := from(x, y)
			out.Set(x, y, img.At(b.Min.X+fx, b.Min.Y+fy))
		}
	}
	return out
}
