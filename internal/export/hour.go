package export

import (
	"fmt"
	"math"

	"coldember/core/hour"
	"coldember/core/quantity"
	"coldember/internal/text"
)

// HourTask is one task of the hour at the forge: its code (hour.task.CODE, hour.how.CODE), the fields that it fills and
// the cautions that belong to it.
type HourTask struct {
	Code     string   `json:"code"`
	Fields   []string `json:"fields"`
	Cautions []string `json:"cautions"`
}

// HourTasks are those of the hour, in the order in which one heat serves the next.
func HourTasks() []HourTask {
	return []HourTask{
		{"fire", []string{"widthMm", "thicknessMm", "glowMm", "magnetS"}, []string{"caution.fire", "caution.hotLooksCold"}},
		{"water", []string{"hotKg", "waterKg", "waterRiseK"}, []string{"caution.steam"}},
		{"blows", []string{"stretchMm", "blows", "lastedS", "face", "afterWidthMm", "afterThicknessMm"}, []string{"caution.eyesEars"}},
		{"scale", []string{"flatWidthMm", "flatThicknessMm", "beforeKg", "afterKg", "heats", "heatS"}, []string{"caution.scaleFlies"}},
		{"fuel", []string{"fuelBeforeKg", "fuelAfterKg", "fuelS"}, []string{"caution.gas"}},
		{"coupon", []string{"file", "grainNumber", "hardMm"}, []string{"caution.brittle"}},
	}
}

// HourSheet is the hour on one sheet, for those who leave the screen outside: what to do, and a line for every figure.
func HourSheet(paper string) ([]byte, error) {
	size := PaperOf(paper)
	title := text.Say("hour.title", nil)
	for scale := 1.0; ; scale *= .95 {
		b := newBook(title, size)
		s := b.page(scale)
		s.y += s.text(s.margin, s.y, s.width(), s.face("label", 21, ink), title) + 1
		s.y += s.text(s.margin, s.y, s.width(), s.face("sans", 9.5, ink), text.Say("hour.note", nil)+" "+text.Say("hour.bar", nil)) + 3
		for _, t := range HourTasks() {
			s.task(t)
		}
		s.y += s.text(s.margin, s.y, s.width(), s.face("sans", 8, quiet), text.Say("caution.general", nil))
		if s.y <= size.HeightMm-s.margin || scale < .5 {
			return b.bytes()
		}
	}
}

// task is one task with its lines, two beside each other.
func (s *sheet) task(t HourTask) {
	s.y += s.text(s.margin, s.y, s.width(), s.face("label", 13, ink), text.Say("hour.task."+t.Code, nil)) + .5
	s.y += s.text(s.margin, s.y, s.width(), s.face("sans", 9, ink), text.Say("hour.how."+t.Code, nil)) + .5
	for _, c := range t.Cautions {
		s.y += s.text(s.margin, s.y, s.width(), s.face("sans", 8, ember), text.Say(c, nil))
	}
	s.y += 1.5
	half := s.width() / 2
	f := s.face("sans", 9, ink)
	for i, field := range t.Fields {
		x := s.margin + half*float64(i%2)
		s.text(x, s.y, half*.6, f, text.Say("field.name.hours."+field, nil))
		s.line(x+half*.62, s.y+4.2*s.scale, x+half*.95, s.y+4.2*s.scale, .2, quiet)
		if i%2 == 1 || i == len(t.Fields)-1 {
			s.y += 7 * s.scale
		}
	}
	s.y += 2
}

// HourLines are what an hour tells, a line each.
func HourLines(t *hour.Tells, units quantity.System) (out []string) {
	add := func(code string, with map[string]string) { out = append(out, text.Say(code, with)) }
	if f := t.TempC; f != nil {
		add("hour.cli.temp", map[string]string{"is": quantity.FormatFireTemperature(f.Is, units), "by": text.Figure("apartK", tenthSd*f.Sd, units)})
	}
	if f := t.HotLengthMm; f != nil {
		add("hour.cli.long", map[string]string{"is": quantity.FormatLength(f.Is, units)})
	}
	if f := t.FuelKgPerH; f != nil {
		add("hour.cli.burns", map[string]string{"is": quantity.FormatMassRate(f.Is, units)})
	}
	for _, k := range []struct {
		code string
		f    *hour.FactorFound
	}{{"hour.blow", t.Blow}, {"hour.spread", t.Spread}, {"hour.scaled", t.Scale}} {
		if f := k.f; f != nil {
			times := func(v float64) string { return text.Local(fmt.Sprintf("× %.2f", v)) }
			add(k.code, map[string]string{"is": times(f.Factor), "low": times(f.Factor * math.Exp(-tenthSd*f.SdLog)), "high": times(f.Factor * math.Exp(tenthSd*f.SdLog))})
		}
	}
	for _, k := range t.Doubtful {
		add("hour.doubtful."+k, nil)
	}
	if t.Coupon != "" {
		add("hour.coupon."+t.Coupon, nil)
	}
	return out
}

// tenthSd is how many standard deviations four in five lie within.
const tenthSd = 1.2816
