package answers

import (
	"time"

	"epitrope/core/design"
	"epitrope/core/prove"
	"epitrope/core/signoff"
	"epitrope/internal/pack"
)

// ProofEntry is a reading as it was entered, or what was said at a gate or of a trip.
type ProofEntry struct {
	ID      string    `json:"id" format:"uuid" doc:"Made by the client: sent twice it counts once"`
	Kind    string    `json:"kind" enum:"reading,waiver,statement,trip,complaint,traced,looked,swapped,mended,bypass,closed,changed,noted" doc:"From complaint to closed: of a case, while a fault is traced; the last two: of the job's log"`
	Subject string    `json:"subject" minLength:"1" maxLength:"60" doc:"The reading, or the gate"`
	Entry   string    `json:"entry" minLength:"1" maxLength:"500" doc:"As it was entered: “12.61 V”; the reason; what was done"`
	By      string    `json:"by" maxLength:"60" doc:"As the server knows them: what is sent here is not read"`
	Person  string    `json:"person,omitempty" doc:"Who entered it, by id; otherwise who sends it"`
	With    string    `json:"with,omitempty" maxLength:"120" doc:"The meter, or the file"`
	State   string    `json:"state,omitempty" maxLength:"300" doc:"Of the vehicle then"`
	Case    string    `json:"case,omitempty" format:"uuid" doc:"Of what is entered while a fault is traced: its case"`
	Found   bool      `json:"found,omitempty" doc:"It speaks of the installation that was found, not of the one that is designed"`
	At      time.Time `json:"at" doc:"By the clock of whoever read it; it decides nothing"`

	Waits         bool   `json:"waits,omitempty" doc:"For a countersignature; what is sent here is not read"`
	Countersigned string `json:"countersigned,omitempty" doc:"Who stands for it; what is sent here is not read"`
}

// Entered is what was entered, done and photographed at a proof.
type Entered struct {
	Entries []ProofEntry   `json:"entries" maxItems:"5000"`
	Done    []string       `json:"done" maxItems:"1000" doc:"Steps that are ticked, by id"`
	Waiting []string       `json:"waiting,omitempty" maxItems:"1000" doc:"… of which these wait for a countersignature"`
	Photos  map[string]int `json:"photos" doc:"How many there are, by what they are tied to"`
}

// AskedReading is a reading with where it is taken.
type AskedReading struct {
	prove.Reading
	Where   string        `json:"where" doc:"Where probes or clamp go, in words"`
	Base    string        `json:"base" doc:"What it is expected to be with nothing read before it, in words"`
	Picture prove.Picture `json:"picture"`
}

// Proven is a proof as far as it has come.
type Proven struct {
	Stations []prove.Station    `json:"stations"`
	Readings []AskedReading     `json:"readings" doc:"In the order in which they are taken; the pieces of a stretch behind it"`
	Stops    []string           `json:"stops" doc:"What the plan may not be built with; then there is nothing to read"`
	Unsteady bool               `json:"unsteady" doc:"With the engine running it comes to no stand"`
	Findings prove.Findings     `json:"findings"`
	Wrong    []prove.EntryError `json:"wrong" doc:"Entries that are no readings"`
	Gates    []signoff.Gate     `json:"gates"`
	MayShow  []PhotoOf          `json:"mayShow" doc:"What photographs may be tied to"`
	Steps    map[string]string  `json:"steps" doc:"What its steps are called, by id"`
	Reserved []string           `json:"reserved" doc:"What local rules keep for a licensed person"`
}

// PhotoOf is what a photograph may be tied to.
type PhotoOf struct {
	Tied string `json:"tied"`
	Name string `json:"name"`
}

// readAndSaid are the readings among entries, with what was said at gates.
func readAndSaid(entries []ProofEntry) (read []prove.Entry, said []signoff.Said) {
	for _, e := range entries {
		switch e.Kind {
		case signoff.ReadingEntry:
			read = append(read, prove.Entry{Reading: e.Subject, Text: e.Entry})
		case signoff.WaiverEntry, signoff.StatementEntry:
			said = append(said, signoff.Said{Gate: e.Subject, Waives: e.Kind == signoff.WaiverEntry, By: e.By, Text: e.Entry,
				At: e.At.Format(time.RFC3339), Waits: e.Waits, Countersigned: e.Countersigned})
		}
	}
	return read, said
}

// Prove is how far a proof has come.
func Prove(d *design.Design, whole pack.Pack, s Entered) Proven {
	p := whole.Proof
	read, said := readAndSaid(s.Entries)
	taken, wrong := p.Read(read)
	out := Proven{Stations: p.Stations, Readings: []AskedReading{}, Stops: p.Stops, Unsteady: p.Unsteady, Findings: p.Judge(taken),
		Wrong:    wrong,
		Reserved: signoff.Reserved(d)}
	if out.Stops == nil {
		out.Stops = []string{}
	}
	if out.Stations == nil {
		out.Stations = []prove.Station{}
	}
	out.MayShow, out.Steps = mayShow(d), map[string]string{}
	for _, step := range whole.Steps {
		out.Steps[step.ID] = step.Title
	}
	pictures := p.Pictures()
	for _, r := range p.Readings {
		out.Readings = append(out.Readings, AskedReading{r, r.Where(), p.Expected(r), pictures[r.ID]})
	}
	done := map[string]bool{}
	for _, id := range s.Done {
		done[id] = true
	}
	stepsWait, readingsWait := map[string]bool{}, map[string]bool{}
	for _, id := range s.Waiting {
		stepsWait[id] = true
	}
	for _, e := range s.Entries { // of two readings of one thing the later stands
		if e.Kind == signoff.ReadingEntry {
			readingsWait[e.Subject] = e.Waits
		}
	}
	out.Gates = signoff.Gates(d, whole.Steps, signoff.Done{Steps: done, Findings: out.Findings, Photos: s.Photos, Said: said,
		StepsWait: stepsWait, ReadingsWait: readingsWait})
	return out
}

// mayShow is what photographs may be tied to besides steps.
func mayShow(d *design.Design) []PhotoOf {
	list := []PhotoOf{}
	for _, s := range signoff.Shown {
		list = append(list, PhotoOf(s))
	}
	for _, c := range d.System.Components {
		list = append(list, PhotoOf{c.ID, c.Name})
	}
	return list
}
