package api

import (
	"context"
	"errors"
	"net/http"
	"slices"

	"coldember/core/colour"
	"coldember/core/fact"
	"coldember/core/quantity"
	"coldember/internal/edit"

	"github.com/danielgtaylor/huma/v2"
)

// AnswerTyped is an answer as it is typed, or of now when it was said.
type AnswerTyped struct {
	colour.Question
	Said  string          `json:"said,omitempty" doc:"how hot, as it is typed"`
	AtS   float64         `json:"atS,omitempty"`
	Units quantity.System `json:"units,omitempty"`
}

// EyeIn are the answers of an eye so far, and the next.
type EyeIn struct {
	Answers []colour.Answer `json:"answers"`
	Next    *AnswerTyped    `json:"next,omitempty"`
}

// EyeOut is how the next answer was, and how the eye reads with it.
type EyeOut struct {
	Answer *colour.Answer `json:"answer,omitempty" doc:"to be kept with those before"`
	Last   *colour.Judged `json:"last,omitempty"`
	Eyes   []colour.Eye   `json:"eyes"`
}

// judged reads and judges. Errors are *edit.InvalidError.
func (in *EyeIn) judged() (EyeOut, error) {
	out := EyeOut{Eyes: []colour.Eye{}}
	all := in.Answers
	if n := in.Next; n != nil {
		a := colour.Answer{Question: n.Question, AtS: n.AtS}
		if n.Kind != colour.Now {
			v, err := quantity.Parse(n.Said, quantity.Temperature, n.Units)
			var wrong *quantity.ParseError
			if errors.As(err, &wrong) {
				return out, &edit.InvalidError{Fields: []edit.Problem{{FieldError: fact.FieldError{Field: "said", Code: string(wrong.Code)}, Text: n.Said, Offset: wrong.Offset, Found: wrong.Found}}}
			}
			a.SaidC = v
		}
		j, err := colour.Judge(a)
		if err != nil {
			return out, edit.Invalid(err)
		}
		out.Answer, out.Last = &a, &j
		all = append(slices.Clone(all), a)
	}
	eyes, err := colour.Learn(all)
	if err != nil {
		return out, edit.Invalid(err)
	}
	out.Eyes = eyes
	return out, nil
}

func (h *handlers) colours(api huma.API) {
	huma.Register(api, op("askColour", http.MethodPost, "/practice/colours/ask", "A question to an eye: hot steel, or a temper colour, in the light of a room"),
		func(ctx context.Context, in *body[colour.Question]) (*body[*colour.Asked], error) {
			a, err := colour.Ask(in.Body)
			return answer(ctx, h, a, edit.Invalid(err))
		})
	huma.Register(api, op("judgeColour", http.MethodPost, "/practice/colours/judge", "Judge an answer among those before it, and say by how much the eye is off and which way; nothing is kept"),
		func(ctx context.Context, in *body[EyeIn]) (*body[EyeOut], error) {
			out, err := in.Body.judged()
			return answer(ctx, h, out, err)
		})
}
