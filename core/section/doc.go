// Package section describes the cross-section of a blade at one station: y runs from the
// edge (0) to the spine (height), t(y) is the full thickness, all mm.
//
// Area, centroid and moments come of it by quadrature, within 1e-6 of closed forms. A
// section whose two faces would cross is a *section.Error that names the field to mend.
package section
