package export

import (
	"encoding/json"
	"errors"
	"slices"

	"coldember/core/blade"
	"coldember/core/figure"
	"coldember/core/plan"
	"coldember/core/quantity"
)

// Format is an open file format of a blade.
type Format string

// The formats.
const (
	FormatSVG  Format = "svg"
	FormatDXF  Format = "dxf"
	FormatPDF  Format = "pdf"
	Format3MF  Format = "3mf"
	FormatSTL  Format = "stl"
	FormatJSON Format = "json"
)

// Formats lists them.
func Formats() []Format {
	return []Format{FormatSVG, FormatDXF, FormatPDF, Format3MF, FormatSTL, FormatJSON}
}

// ErrFormat is returned for a format that Formats does not list.
var ErrFormat = errors.New("export: no such format; there are svg, dxf, pdf, 3mf, stl and json")

// PatternVersion is the version of the JSON form of a pattern.
const PatternVersion = 1

// PatternFile is a blade as JSON: everything it is made from, so that it reads
// back identically.
type PatternFile struct {
	Format     string           `json:"format" enum:"coldember.pattern"`
	Version    int              `json:"version"`
	Name       string           `json:"name"`
	Tags       []string         `json:"tags"`
	Design     blade.Design     `json:"design"`
	Allowances blade.Allowances `json:"allowances"`
}

func patternFileOf(s Subject) PatternFile {
	tags := s.Tags
	if tags == nil {
		tags = []string{}
	}
	return PatternFile{patternFormat, PatternVersion, s.Name, tags, s.Design, s.Allowances}
}

// Subject is what is written: a blade with its allowances.
type Subject struct {
	Name       string
	Tags       []string
	Design     blade.Design
	Allowances blade.Allowances

	// Piece, of a piece of work, sets what it is forged to by its bar and its schools.
	Piece *plan.Request
}

// bodies of the subject, finished and forged.
func (s *Subject) bodies() (fin, fog *blade.Body, drawn plan.Drawing, err error) {
	if s.Piece != nil {
		return figure.BodiesOf(*s.Piece)
	}
	return figure.Bodies(s.Design, s.Allowances)
}

// File is a written file.
type File struct {
	Data        []byte
	ContentType string
}

// Write writes a blade in a format. STL has the forged shape; 3MF both. Errors
// are ErrFormat, or fact.FieldErrors of a blade that cannot be.
func Write(s Subject, f Format, units quantity.System, paper string) (File, error) {
	if !slices.Contains(Formats(), f) {
		return File{}, ErrFormat
	}
	fin, fog, drawn, err := s.bodies()
	if err != nil {
		return File{}, err
	}
	switch f {
	case FormatSVG:
		return File{SVG(s.Name, Drawing(fin, fog, s.Design.TangKind)), "image/svg+xml"}, nil
	case FormatDXF:
		return File{DXF(Drawing(fin, fog, s.Design.TangKind)), "image/vnd.dxf"}, nil
	case FormatPDF:
		data, err := Template(s.Name, Drawing(fin, fog, s.Design.TangKind), drawn, units, paper)
		return File{data, "application/pdf"}, err
	case Format3MF:
		data, err := ThreeMF(NamedMesh{"finished", fin.BentMesh(s.Design.TangKind)}, NamedMesh{"forged", fog.BentMesh(s.Design.TangKind)})
		return File{data, "model/3mf"}, err
	case FormatSTL:
		return File{STL(fog.BentMesh(s.Design.TangKind)), "model/stl"}, nil
	default:
		data, err := json.MarshalIndent(patternFileOf(s), "", " ")
		return File{append(data, '\n'), "application/json"}, err
	}
}

// maxPattern bounds a pattern file that is read.
const maxPattern = 1 << 20
