package api

import (
	"fmt"
	"regexp"
	"strings"

	"coldember/internal/text"

	"github.com/danielgtaylor/huma/v2/validation"
)

// refusals are what the router says of a request that does not fit the API document, and the codes of the catalogue for it. What
// stands for something in them fills {found}.
var refusals = patterns([][2]string{
	{validation.MsgUnexpectedProperty, "refused.unknown"},
	{validation.MsgExpectedRFC3339DateTime, "refused.time"},
	{validation.MsgExpectedRFC3339Date, "refused.time"},
	{validation.MsgExpectedBoolean, "refused.yesNo"},
	{validation.MsgExpectedNumber, "refused.number"},
	{validation.MsgExpectedInteger, "refused.whole"},
	{validation.MsgExpectedString, "refused.text"},
	{validation.MsgExpectedArray, "refused.list"},
	{validation.MsgExpectedObject, "refused.object"},
	{validation.MsgExpectedArrayItemsUnique, "refused.twice"},
	{validation.MsgExpectedOneOf, "refused.oneOf"},
	{validation.MsgExpectedMinimumNumber, "refused.atLeast"},
	{validation.MsgExpectedExclusiveMinimumNumber, "refused.over"},
	{validation.MsgExpectedMaximumNumber, "refused.atMost"},
	{validation.MsgExpectedExclusiveMaximumNumber, "refused.under"},
	{validation.MsgExpectedMinLength, "refused.longer"},
	{validation.MsgExpectedMaxLength, "refused.shorter"},
	{validation.MsgExpectedMinItems, "refused.more"},
	{validation.MsgExpectedMaxItems, "refused.fewer"},
	{validation.MsgExpectedBePattern, "refused.form"},
	{validation.MsgExpectedMatchPattern, "refused.form"},
	{validation.MsgExpectedRequiredProperty, "refused.missing"},
	{"request body is required", "refused.empty"},
	{"request body is too large limit=%d bytes", "refused.large"},
	{"request body read timeout", "refused.slow"},
	{"json: unknown field %q", "refused.unknownField"},
	{"json: cannot unmarshal %s into Go struct field %s of type %s", "refused.kind"},
	{"json: cannot unmarshal %s", "refused.kindAll"},
	{"invalid character %s", "refused.notJSON"},
	{"unexpected end of JSON input", "refused.notJSON"},
	{"unexpected EOF", "refused.notJSON"},
	{"EOF", "refused.empty"},
	{"json: unsupported value: %s", "refused.noNumber"},
})

type refusal struct {
	says *regexp.Regexp
	code string
}

// filled is what is filled in by a message.
var filled = regexp.MustCompile(`%[vsdq]`)

func patterns(list [][2]string) (out []refusal) {
	for _, p := range list {
		says := filled.ReplaceAllString(regexp.QuoteMeta(p[0]), `"?(.*?)"?`)
		out = append(out, refusal{regexp.MustCompile("^" + says + "$"), p[1]})
	}
	return out
}

// refusedAs is what a message of the router, or of the reader of JSON, says in the words of the catalogue.
func refusedAs(message string) string {
	for _, r := range refusals {
		if found := r.says.FindStringSubmatch(message); found != nil {
			with := map[string]string{}
			if len(found) > 1 {
				with["found"] = strings.TrimSpace(found[1])
			}
			if len(found) > 2 { // the field, by its name in JSON
				with["found"] = found[2][strings.LastIndexByte(found[2], '.')+1:]
			}
			return text.Say(r.code, with)
		}
	}
	return text.Say("refused.other", nil)
}

// refused is what is said of a request that does not fit: each place with what is wrong there, or the whole of it.
func refused(status int, message string, fields []FieldMessage) *Problem {
	said := make([]string, 0, len(fields))
	for _, f := range fields {
		said = append(said, strings.TrimPrefix(fmt.Sprintf("%s: %s", f.Field, f.Message), ": "))
	}
	if len(said) == 0 {
		said = append(said, refusedAs(message))
	}
	p := problem(status, "problem.body", map[string]string{"said": strings.Join(said, " ")})
	p.Fields = fields
	return p
}
