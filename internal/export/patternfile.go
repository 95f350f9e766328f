package export

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"
)

// patternFormat names the format of a pattern file.
const patternFormat = "coldember.pattern"

// FileError says why a file is no pattern, and in which of its lines.
type FileError struct {
	Code  string
	Line  int
	Found string
}

func (e *FileError) Error() string {
	return fmt.Sprintf("export: %s at line %d: %s", e.Code, e.Line, e.Found)
}

// ReadPattern reads a pattern written as JSON, every field of which must be known: what is
// misspelt is not left out without a word. Whether its blade can be is for the caller to
// validate. Errors are *FileError.
func ReadPattern(data []byte) (PatternFile, error) {
	var p PatternFile
	if len(data) > maxPattern {
		return p, &FileError{Code: "patternFile.tooLarge"}
	}
	switch code, ok, err := ReadCode(string(data)); { // the text of a printed one's squares
	case err != nil:
		return p, err
	case ok:
		data = code
	}
	// which file it is comes first: another's fields are not to be told one by one
	var head struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if err := json.Unmarshal(data, &head); err != nil {
		return p, jsonError(data, err, 0)
	}
	if head.Format != patternFormat {
		return p, &FileError{Code: "patternFile.format", Line: 1, Found: head.Format}
	}
	if head.Version != PatternVersion {
		return p, &FileError{Code: "patternFile.version", Line: 1, Found: fmt.Sprint(head.Version)}
	}
	d := json.NewDecoder(bytes.NewReader(data))
	d.DisallowUnknownFields()
	if err := d.Decode(&p); err != nil {
		return PatternFile{}, jsonError(data, err, d.InputOffset())
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return PatternFile{}, &FileError{Code: "patternFile.notJson", Line: lineAt(data, d.InputOffset()), Found: "}"}
	}
	return p, nil
}

// jsonError tells where a text is no JSON, or not of the kind that is wanted.
func jsonError(data []byte, err error, at int64) error {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		return &FileError{Code: "patternFile.notJson", Line: lineAt(data, syntax.Offset), Found: near(data, syntax.Offset)}
	case errors.As(err, &kind):
		return &FileError{Code: "patternFile.kind", Line: lineAt(data, kind.Offset), Found: kind.Field}
	}
	if name, ok := strings.CutPrefix(err.Error(), "json: unknown field "); ok {
		name = strings.Trim(name, `"`)
		if i := bytes.Index(data, []byte(`"`+name+`"`)); i >= 0 {
			at = int64(i)
		}
		return &FileError{Code: "patternFile.unknown", Line: lineAt(data, at), Found: name}
	}
	return &FileError{Code: "patternFile.notJson", Line: lineAt(data, at), Found: near(data, at)}
}

func lineAt(data []byte, offset int64) int {
	return 1 + bytes.Count(data[:min(int64(len(data)), max(0, offset))], []byte("\n"))
}

// near is what stands where reading ended.
func near(data []byte, offset int64) string {
	from := min(int64(len(data)), max(0, offset-1))
	line, _, _ := bytes.Cut(data[from:min(int64(len(data)), from+24)], []byte("\n"))
	return strings.ToValidUTF8(string(line), "�")
}
