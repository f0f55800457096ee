// Package section is the sheet of a design: the parts of the run in a row with what each
// carries, loses and bears, the grade line of volts over them, what the fuses cover, the way
// back, and the title block.
package section

import (
	"epitrope/core/job"
	"epitrope/core/verdict"
)

// Scene is the side view that the run is drawn on, in m.
type Scene struct {
	Kind     string        `json:"kind"`
	Label    string        `json:"label"`
	LengthM  float64       `json:"lengthM"`
	HeightM  float64       `json:"heightM"`
	Outlines [][]job.Point `json:"outlines"`
	Wheels   []job.Wheel   `json:"wheels"`
}

// Cell is one field of the rows under the grade line.
type Cell struct {
	Text string `json:"text"`
	// Assumed says that an answer behind it was not given.
	Assumed bool          `json:"assumed,omitempty"`
	Figure  string        `json:"figure,omitempty" doc:"Key of the figure behind it"`
	Level   verdict.Level `json:"level" enum:"good,caution,bad"`
}

// Column is one part of the run.
type Column struct {
	ID      string    `json:"id"`
	Kind    string    `json:"kind" enum:"alternator,lead,battery,fuse,cable,plug,outlet,charger,relay,splitter,switch"`
	Name    string    `json:"name"`
	At      job.Point `json:"at" doc:"Where it is; the middle of a cable"`
	Part    Cell      `json:"part"`
	Carries Cell      `json:"carries"`
	Loses   Cell      `json:"loses"`
	Heat    Cell      `json:"heat"`
	Figures []string  `json:"figures" doc:"Keys of its figures, in reading order"`
	Fields  []string  `json:"fields" doc:"Paths that are asked at this part"`
	Folded  []Folded  `json:"folded" doc:"What its own label or a meter says, instead of what is usual"`
	Choice  *Choice   `json:"choice,omitempty"`
	DropV   float64   `json:"-"` // what a fuse loses at the most
}

// Folded are answers that are asked at a part once somebody wants to give them.
type Folded struct {
	Title  string   `json:"title"`
	Fields []string `json:"fields"`
}

// Choice is what the plan decides at a part unless it is pinned.
type Choice struct {
	Path      string `json:"path"`
	Label     string `json:"label"`
	Auto      string `json:"auto" doc:"What the plan would choose, as shown"`
	Now       string `json:"now" doc:"What holds, as shown"`
	Pinned    bool   `json:"pinned"`
	DecidedBy string `json:"decidedBy" doc:"What settled it, in words"`
}

// Cover is the stretch that a fuse protects, by columns.
type Cover struct {
	Fuse  string        `json:"fuse"`
	Side  string        `json:"side" enum:"front,back"`
	From  string        `json:"from"`
	To    string        `json:"to"`
	Bare  string        `json:"bare" doc:"The stretch before the fuse, in words"`
	Text  string        `json:"text"`
	Level verdict.Level `json:"level" enum:"good,caution,bad"`
}

// Segment is a piece of the way back.
type Segment struct {
	ID     string  `json:"id"`
	Kind   string  `json:"kind" enum:"earth,chassis,cable"`
	Text   string  `json:"text"`
	MilliO float64 `json:"milliohm"`
	Loses  string  `json:"loses,omitempty" doc:"At the worst, with its joints"`
	From   string  `json:"from" doc:"Column it starts under"`
	To     string  `json:"to" doc:"Column it ends under"`
	Figure string  `json:"figure,omitempty"`
}

// State is the run in one state of the vehicle. Volts are across both
// conductors, so that return losses count.
type State struct {
	ID     string  `json:"id"`
	Label  string  `json:"label"`
	Kind   string  `json:"kind" enum:"charging,proving,resting,cranking,fault" doc:"The runs are sized for the charging ones; readings are expected of the proving one"`
	Worst  bool    `json:"worst"`
	Apart  bool    `json:"apart,omitempty" doc:"The coupling lets nothing through"`
	Sags   bool    `json:"sags,omitempty" doc:"The start battery makes up what the alternator lacks; it cannot last"`
	InA    float64 `json:"inA" doc:"Drawn from the start side"`
	OutA   float64 `json:"outA" doc:"Into the aux battery"`
	InV    float64 `json:"inV" doc:"At the coupling's input"`
	AuxV   float64 `json:"auxV" doc:"At the aux battery"`
	StartV float64 `json:"-"` // at the start battery
	Says   string  `json:"says" doc:"Amps and what limits them, then volts"`
	Fails  string  `json:"fails,omitempty" doc:"Why there is no solution in this state"`
	Points []Volts `json:"points"`
}

// Volts is the volts at one column in a state, and what it carries and loses there.
type Volts struct {
	Column  string  `json:"column"`
	InV     float64 `json:"inV"`
	OutV    float64 `json:"outV"`
	Carries string  `json:"carries"`
	Loses   string  `json:"loses"`
}

// Joint is a crimped and bolted end between two columns.
type Joint struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Row   string `json:"row" doc:"The row in which it is entered as measured"`
	After string `json:"after" doc:"The column that it follows"`
	Text  string `json:"text" doc:"What it loses at the worst"`
	Says  string `json:"says"`
}

// Curve is the picture of time against current of a fuse and its cable.
type Curve struct {
	Fuse   string       `json:"fuse" doc:"Column of the fuse"`
	Label  string       `json:"label"`
	Cable  string       `json:"cable"`
	Points []CurvePoint `json:"points" doc:"From the fuse's rating to the greatest fault"`
	Marks  []CurveMark  `json:"marks" doc:"Currents that matter, in rising order"`
	Says   []string     `json:"says" doc:"The picture in words"`
}

// CurvePoint is the fuse's band and the cable's limit at one current. Times are in
// seconds; zero means never.
type CurvePoint struct {
	Amps  float64 `json:"amps"`
	MinS  float64 `json:"minS" doc:"Opens at the earliest; 0 where it never does"`
	MaxS  float64 `json:"maxS" doc:"Opens at the latest; 0 where it need not"`
	Bears float64 `json:"bearsS" doc:"The cable bears it for so long; 0 for ever"`
}

// CurveMark is a current on the picture.
type CurveMark struct {
	Amps float64 `json:"amps"`
	Text string  `json:"text"`
}

// Mark is a limit on the grade line: a band from Low to High at a column.
type Mark struct {
	Column string  `json:"column"`
	Text   string  `json:"text"`
	Low    float64 `json:"low"`
	High   float64 `json:"high"`
	Kind   string  `json:"kind" enum:"wanted,limit"`
}

// Tile is a field of the title block.
type Tile struct {
	Label  string        `json:"label"`
	Text   string        `json:"text"`
	Figure string        `json:"figure,omitempty"`
	Level  verdict.Level `json:"level" enum:"good,caution,bad"`
}
