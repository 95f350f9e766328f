package export

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"strings"

	"coldember/core/blade"
)

// STL writes a mesh in binary: 80 bytes of heading, the count, then each
// triangle with its normal. STL has no unit; millimetres are meant.
func STL(m blade.Mesh) []byte {
	var b bytes.Buffer
	head := make([]byte, 80)
	copy(head, "Cold Ember, millimetres")
	b.Write(head)
	_ = binary.Write(&b, binary.LittleEndian, uint32(len(m.Triangles))) // a buffer does not fail
	for _, t := range m.Triangles {
		var v [12]float32
		p, q, r := m.Vertices[t[0]], m.Vertices[t[1]], m.Vertices[t[2]]
		for k, n := range normal(p, q, r) {
			v[k] = float32(n)
		}
		for i, c := range [][3]float64{p, q, r} {
			for k := range 3 {
				v[3+3*i+k] = float32(c[k])
			}
		}
		_ = binary.Write(&b, binary.LittleEndian, v)
		b.Write([]byte{0, 0})
	}
	return b.Bytes()
}

func normal(p, q, r [3]float64) [3]float64 {
	var u, v, n [3]float64
	for k := range 3 {
		u[k], v[k] = q[k]-p[k], r[k]-p[k]
	}
	n = [3]float64{u[1]*v[2] - u[2]*v[1], u[2]*v[0] - u[0]*v[2], u[0]*v[1] - u[1]*v[0]}
	l := math.Sqrt(n[0]*n[0] + n[1]*n[1] + n[2]*n[2])
	if l == 0 {
		return [3]float64{}
	}
	return [3]float64{n[0] / l, n[1] / l, n[2] / l}
}

// NamedMesh is a mesh with the name it has in a file of several.
type NamedMesh struct {
	Name string
	Mesh blade.Mesh
}

// ThreeMF writes meshes as a 3MF package in millimetres, an object each.
func ThreeMF(meshes ...NamedMesh) ([]byte, error) {
	var model strings.Builder
	model.WriteString(`<?xml version="1.0" encoding="UTF-8"?>` + "\n" + `<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>`)
	for i, m := range meshes {
		fmt.Fprintf(&model, `<object id="%d" type="model" name="%s"><mesh><vertices>`, i+1, m.Name)
		for _, v := range m.Mesh.Vertices {
			fmt.Fprintf(&model, `<vertex x="%.5f" y="%.5f" z="%.5f"/>`, v[0], v[1], v[2])
		}
		model.WriteString(`</vertices><triangles>`)
		for _, t := range m.Mesh.Triangles {
			fmt.Fprintf(&model, `<triangle v1="%d" v2="%d" v3="%d"/>`, t[0], t[1], t[2])
		}
		model.WriteString(`</triangles></mesh></object>`)
	}
	model.WriteString(`</resources><build>`)
	for i := range meshes {
		fmt.Fprintf(&model, `<item objectid="%d" transform="1 0 0 0 1 0 0 0 1 0 %d 0"/>`, i+1, -80*i)
	}
	model.WriteString(`</build></model>`)
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for _, f := range [][2]string{
		{"[Content_Types].xml", `<?xml version="1.0" encoding="UTF-8"?>` + "\n" + `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`},
		{"_rels/.rels", `<?xml version="1.0" encoding="UTF-8"?>` + "\n" + `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`},
		{"3D/3dmodel.model", model.String()},
	} {
		w, err := z.Create(f[0])
		if err == nil {
			_, err = w.Write([]byte(f[1]))
		}
		if err != nil {
			return nil, fmt.Errorf("export: 3mf: %w", err)
		}
	}
	if err := z.Close(); err != nil {
		return nil, fmt.Errorf("export: 3mf: %w", err)
	}
	return b.Bytes(), nil
}
