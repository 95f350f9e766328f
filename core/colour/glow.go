package colour

import "math"

// Room is the light that steel is looked at in.
type Room string

// Rooms.
const (
	DarkShop Room = "dark"
	LitShop  Room = "lit"
	Daylight Room = "day"
)

// Rooms lists them.
func Rooms() []Room { return []Room{DarkShop, LitShop, Daylight} }

// How far an eye gets used to the colour of a glow, and from how bright a one.
const (
	mostTired = .6
	tiredCd   = 1200.0
)

// How hue and brightness of a glow are taken by an eye (judgement, each with its interval).
const (
	// Dim red light looks redder, bright light yellower than it is (Bezold 1873, Brücke 1878): half of
	// the way to pure red at so dim a light, and half of the way to yellow at so bright a one, cd/m².
	// 5–30; 1000–3000.
	redderCd   = 12.0
	yellowerCd = 2000.0
	yellowDeg  = 52.0
	// Bright light bleaches: half of its colour is gone at so much more of it, cd/m². 6000–15000.
	bleachedCd = 8000.0
	// An eye tells light by its logarithm (Fechner 1860): from where it is hardly seen to where it is as
	// bright as a screen, cd/m². .01–.05; 150–400.
	hardlyCd    = .02
	fullCd      = 260.0
	hardlyValue = .3
)

// asBright is a colour as the glow of so much light looks, cd/m².
func (c RGB) asBright(glowCd float64) RGB {
	h, s, v := c.hsv()
	if h < 60 {
		h *= glowCd / (glowCd + redderCd)
		h += (yellowDeg - h) * glowCd / (glowCd + yellowerCd)
	}
	s *= 1 - glowCd/(glowCd+bleachedCd)/2
	most := hardlyValue + (1-hardlyValue)*math.Log(glowCd/hardlyCd)/math.Log(fullCd/hardlyCd)
	return fromHSV(h, s, math.Min(v, math.Max(hardlyValue, most)))
}

// lights are how much light falls on things in a room, lux, and how warm it is, kelvin (judgement: a corner with the lamp
// off; lamps over the benches; the open door on a grey day).
var lights = map[Room][2]float64{DarkShop: {3, 2700}, LitShop: {250, 4000}, Daylight: {3000, 6500}}

// white is paper in a room.
func (r Room) white() XYZ {
	l, ok := lights[r]
	if !ok {
		l = lights[LitShop]
	}
	b := BlackBody(l[1])
	return b.times(paperShare * l[0] / math.Pi / b.Y)
}

// Sight is what is seen of steel.
type Sight struct {
	RGB     RGB     `json:"rgb"`
	GlowCd  float64 `json:"glowCdPerM2" doc:"how bright it glows"`
	GivesCd float64 `json:"givesCdPerM2" doc:"how bright what it gives back of the room is"`
	Glows   bool    `json:"glows" doc:"it is seen to"`
}

// Seen is what is seen of scaly steel at a temperature in a room: its glow by Planck's law, over what it gives back of the
// light on it, by an eye that is used to the room and a little to the glow. Valid for 20 to 1400 °C.
func Seen(tempC float64, room Room) Sight {
	white := room.white()
	glow := BlackBody(tempC + kelvinAt0C).times(emissivity)
	back := white.times(scaleShare / paperShare)
	s := Sight{GlowCd: glow.Y, GivesCd: back.Y}
	s.Glows = glow.Y > usualDim && glow.Y > leastShare*back.Y
	// bright light tires an eye for its own colour: its red goes towards yellow (Bezold and Brücke; how much is judgement)
	tired := mostTired * glow.Y / (glow.Y + tiredCd)
	seenWhite := white.times((1 - tired) / white.Y)
	if glow.Y > 0 {
		seenWhite = seenWhite.plus(glow.times(tired / glow.Y))
	}
	c := glow.plus(back).adapted(seenWhite).times(1 / (white.Y + darkCd + selfAdapted*glow.Y))
	s.RGB = c.rgb()
	if s.Glows {
		s.RGB = s.RGB.asBright(glow.Y)
	}
	return s
}

// Wall is what the room behind it looks like.
func Wall(room Room) RGB {
	white := room.white()
	dim := map[Room]float64{DarkShop: .012, LitShop: .12, Daylight: .35}[room]
	return white.adapted(white).times(dim / white.Y).rgb()
}

// Magnet tells whether a magnet pulls at steel that is heated: its pull goes between the transformation and Curie's point,
// and is gone above 770 °C.
func Magnet(tempC float64) bool { return tempC < 770 }
