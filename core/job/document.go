// Package job holds the job document: what was surveyed, what is wanted and what
// the designer pinned.
//
// A document is sparse: what nobody answered is absent, and Resolve fills it with
// a stated default that stays marked as assumed. Fields lists every field once,
// with its limits; reading, checking, the published schema, the questions and the
// defaults all go by that table.
package job

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
)

// Format and Version name the document's format. A document of a newer version
// is refused, never guessed at.
const (
	Format  = "epitrope-job"
	Version = 1
)

// Document is a job as stored, exported and imported. Lengths in m, temperatures
// in °C, charge in Ah, time in hours; cables and alternators by their names.
type Document struct {
	Format   string `json:"format"`
	Version  int    `json:"version"`
	Title    string `json:"title,omitempty"`
	Customer string `json:"customer,omitempty"`
	Plate    string `json:"plate,omitempty"`
	Remarks  string `json:"remarks,omitempty"`

	Vehicle      Vehicle      `json:"vehicle,omitzero"`
	Alternator   Alternator   `json:"alternator,omitzero"`
	StartBattery StartBattery `json:"startBattery,omitzero"`
	Aux          Aux          `json:"aux,omitzero"`
	Use          Use          `json:"use,omitzero"`
	Routes       Routes       `json:"routes,omitzero"`
	Bays         Bays         `json:"bays,omitzero"`
	Cable        Cable        `json:"cable,omitzero"`
	Limits       Limits       `json:"limits,omitzero"`
	Day          Day          `json:"day,omitzero"`
	Pins         Pins         `json:"pins,omitzero"`
	Fit          Fit          `json:"fit,omitzero"`
	Placing      Placing      `json:"placing,omitzero"`
	Wants        Wants        `json:"wants,omitzero"`
	Schools      Schools      `json:"schools,omitzero"`
	Have         Have         `json:"have,omitzero"`
	Signal       Signal       `json:"signal,omitzero"`
	Card         Card         `json:"card,omitzero"`
	Relay        Relay        `json:"relay,omitzero"`
	Solar        Solar        `json:"solar,omitzero"`
	Beliefs      Beliefs      `json:"beliefs,omitzero"`
	Mains        Mains        `json:"mains,omitzero"`
	Monitor      Monitor      `json:"monitor,omitzero"`
	Profile      Profile      `json:"profile,omitzero"`
	Extras       Extras       `json:"extras,omitzero"`
	Colours      Colours      `json:"colours,omitzero"`
	Written      Written      `json:"written,omitzero"`
	Arranged     Arranged     `json:"arranged,omitzero"`
	Drilling     Drilling     `json:"drilling,omitzero"`

	Loads    map[string]Load          `json:"loads,omitempty" doc:"Rows by name"`
	Joints   map[string]JointMeasured `json:"joints,omitempty" doc:"Joints as measured, by wire and end"`
	Gear     map[string]Gear          `json:"gear,omitempty" doc:"What was there before: devices, by name of the row"`
	Found    map[string]FoundWire     `json:"found,omitempty" doc:"… and wires"`
	Bank     map[string]InBank        `json:"bank,omitempty" doc:"The batteries of a bank, where they are not all alike"`
	Fitted   map[string]FittedPart    `json:"fitted,omitempty" doc:"What was fitted, by serial number and lot"`
	Taps     map[string]Tap           `json:"taps,omitempty" doc:"What hangs on the run at the coupling"`
	Feeds    map[string]Feed          `json:"feeds,omitempty" doc:"Feed points that were tested"`
	Points   map[string]Spot          `json:"points,omitempty" doc:"Earth points, grommets, fasteners"`
	Settings map[string]CardSetting   `json:"settings,omitempty" doc:"How the charger of the card can be set"`

	Dates map[string]Due `json:"dates,omitempty" doc:"What is to be done later, and when"`

	Built map[string]string `json:"built,omitempty" doc:"What was really fitted where it is not as designed, by the answer's path with / for its points"`
	Known map[string]string `json:"known,omitempty" doc:"How an answer is known, by its path with / for its points"`
}

// Vehicle is what is driven.
type Vehicle struct {
	Model       string   `json:"model,omitempty"`
	Kind        *string  `json:"kind,omitempty"`
	SystemVolts *float64 `json:"systemVolts,omitempty"`
	LoadA       *float64 `json:"loadA,omitempty"`
	DayA        *float64 `json:"dayA,omitempty"`
	KeyA        *float64 `json:"keyA,omitempty"`
	AsleepA     *float64 `json:"asleepA,omitempty"`
	Year        *float64 `json:"year,omitempty"`
	Engine      *string  `json:"engine,omitempty"`
	StopStart   *string  `json:"stopStart,omitempty"`
	Euro56      *string  `json:"euro56,omitempty"`
	Frame       *string  `json:"frame,omitempty"`
	Bonded      *string  `json:"bonded,omitempty"`
	Sensor      *string  `json:"sensor,omitempty"`
	Stud        *string  `json:"stud,omitempty"`
	Winch       *string  `json:"winch,omitempty"`
	SecondRoom  *string  `json:"secondRoom,omitempty"`
}

// Alternator is the machine and how it is regulated.
type Alternator struct {
	Machine    *string  `json:"machine,omitempty"`
	Label      *string  `json:"label,omitempty"`
	Regulation *string  `json:"regulation,omitempty"`
	KnownBy    *string  `json:"knownBy,omitempty"`
	Volts      *float64 `json:"volts,omitempty"`
	Count      *float64 `json:"count,omitempty"`
	Senses     *string  `json:"senses,omitempty"`
	Excites    *string  `json:"excites,omitempty"`
	IdleA      *float64 `json:"idleA,omitempty"`
	IdleV      *float64 `json:"idleV,omitempty"`
	HotV       *float64 `json:"hotV,omitempty"`
	IdleRPM    *float64 `json:"idleRpm,omitempty"`
	Ratio      *float64 `json:"ratio,omitempty"`
}

// Use is how the vehicle is lived in.
type Use struct {
	DailyAh     *float64 `json:"dailyAh,omitempty"`
	DrivenHours *float64 `json:"drivenHours,omitempty"`
	IdleHours   *float64 `json:"idleHours,omitempty"`
	ParkedDays  *float64 `json:"parkedDays,omitempty"`
	MainsAh     *float64 `json:"mainsAh,omitempty"`
}

// Routes are measured lengths, one way, along the real route with slack.
type Routes struct {
	StartM   *float64 `json:"startM,omitempty"`
	AuxM     *float64 `json:"auxM,omitempty"`
	EarthM   *float64 `json:"earthM,omitempty"`
	TriggerM *float64 `json:"triggerM,omitempty"`
	ReturnM  *float64 `json:"returnM,omitempty"`
	AuxBackM *float64 `json:"auxBackM,omitempty"`
	EarthAt  *string  `json:"earthAt,omitempty"`
	EarthBy  *string  `json:"earthBy,omitempty"`
	Guarded  *string  `json:"guarded,omitempty"`
}

// Bays are the warmest places along the runs, and how the cable lies there.
type Bays struct {
	StartC   *float64 `json:"startC,omitempty"`
	AuxC     *float64 `json:"auxC,omitempty"`
	StartLay *string  `json:"startLay,omitempty"`
	AuxLay   *string  `json:"auxLay,omitempty"`

	ReturnC   *float64 `json:"returnC,omitempty"`
	ReturnLay *string  `json:"returnLay,omitempty"`
}

// Cable is what is on the workshop's reels.
type Cable struct {
	System     *string  `json:"system,omitempty"`
	Insulation *float64 `json:"insulation,omitempty"`
	Sizes      *string  `json:"sizes,omitempty"`
	Lugs       *string  `json:"lugs,omitempty"`

	StartInsulation *float64 `json:"startInsulation,omitempty"`
	AuxInsulation   *float64 `json:"auxInsulation,omitempty"`
}

// Limits are the drops that are allowed, in % of the system voltage.
type Limits struct {
	ChargerDrop *float64 `json:"chargerDrop,omitempty"`
	BatteryDrop *float64 `json:"batteryDrop,omitempty"`
}

// Day is how the installation is tried out: what the vehicle does, and in what.
type Day struct {
	Pattern  *string  `json:"pattern,omitempty"`
	Own      string   `json:"own,omitempty"`
	Days     *float64 `json:"days,omitempty"`
	OutsideC *float64 `json:"outsideC,omitempty"`
	SolarW   *float64 `json:"solarW,omitempty"`
	SunHours *float64 `json:"sunHours,omitempty"`
	StartSOC *float64 `json:"startSOC,omitempty"`
	AuxSOC   *float64 `json:"auxSOC,omitempty"`
	Trigger  *string  `json:"trigger,omitempty"`
}

// Pins are the choices that the designer took out of the plan's hands.
type Pins struct {
	Coupling   *string  `json:"coupling,omitempty"`
	ChargerA   *float64 `json:"chargerA,omitempty"`
	Chargers   *float64 `json:"chargerCount,omitempty"`
	ContactA   *float64 `json:"contactA,omitempty"`
	PlugA      *float64 `json:"plugA,omitempty"`
	SecondA    *float64 `json:"secondA,omitempty"`
	Selector   *string  `json:"selector,omitempty"`
	Splitter   *string  `json:"splitter,omitempty"`
	StartSize  *string  `json:"startSize,omitempty"`
	AuxSize    *string  `json:"auxSize,omitempty"`
	StartFuseA *float64 `json:"startFuseA,omitempty"`
	AuxFuseA   *float64 `json:"auxFuseA,omitempty"`
	Device     *string  `json:"device,omitempty"`
	Return     *string  `json:"return,omitempty"`
}

// Fit is whether the battery goes where it is meant to, in mm.
type Fit struct {
	LengthMM        *float64 `json:"lengthMM,omitempty"`
	WidthMM         *float64 `json:"widthMM,omitempty"`
	HeightMM        *float64 `json:"heightMM,omitempty"`
	RecessLengthMM  *float64 `json:"recessLengthMM,omitempty"`
	RecessWidthMM   *float64 `json:"recessWidthMM,omitempty"`
	RecessHeightMM  *float64 `json:"recessHeightMM,omitempty"`
	OpeningLengthMM *float64 `json:"openingLengthMM,omitempty"`
	OpeningWidthMM  *float64 `json:"openingWidthMM,omitempty"`
	AboveMM         *float64 `json:"aboveMM,omitempty"`
	Covered         *string  `json:"covered,omitempty"`
}

// Placing is the place of the coupling.
type Placing struct {
	Terminals *string  `json:"terminals,omitempty"`
	Exhaust   *string  `json:"exhaust,omitempty"`
	Spray     *string  `json:"spray,omitempty"`
	Gas       *string  `json:"gas,omitempty"`
	Moving    *string  `json:"moving,omitempty"`
	Visible   *string  `json:"visible,omitempty"`
	Access    *string  `json:"access,omitempty"`
	LengthMM  *float64 `json:"lengthMM,omitempty"`
	WidthMM   *float64 `json:"widthMM,omitempty"`
	HeightMM  *float64 `json:"heightMM,omitempty"`
	Vented    *string  `json:"vented,omitempty"`
	Housed    *string  `json:"housed,omitempty"`
	Ground    *string  `json:"ground,omitempty"`
}

// Wants is what the customer asks for besides charging.
type Wants struct {
	EmergencyStart *string  `json:"emergencyStart,omitempty"`
	Budget         *string  `json:"budget,omitempty"`
	Idling         *string  `json:"idling,omitempty"`
	FeedA          *float64 `json:"feedA,omitempty"`
}

// Schools are choices that the trade makes one way or the other.
type Schools struct {
	DelayMin    *float64 `json:"delayMin,omitempty"`
	InSeries    *string  `json:"inSeries,omitempty"`
	Fuse        *string  `json:"fuse,omitempty"`
	Termination *string  `json:"termination,omitempty"`
	Takeoff     *string  `json:"takeoff,omitempty"`
	Negative    *string  `json:"negative,omitempty"`
	Emergency   *string  `json:"emergency,omitempty"`
	Supply      *string  `json:"supply,omitempty"`
}

// Have is the coupling that was there, and what is in the van for a bypass.
type Have struct {
	Coupling  *string  `json:"coupling,omitempty"`
	CouplingA *float64 `json:"couplingA,omitempty"`
	FuseA     *float64 `json:"fuseA,omitempty"`
	Fuses     *float64 `json:"fuses,omitempty"`
	Size      *string  `json:"size,omitempty"`
	Metres    *float64 `json:"metres,omitempty"`
	RelayA    *float64 `json:"relayA,omitempty"`
}

// Signal is what tells a coupling that the engine runs.
type Signal struct {
	Feed  string   `json:"feed,omitempty"`
	FuseA *float64 `json:"fuseA,omitempty"`
}

// Written is how this job's sheets are written, where not as the workshop's.
type Written struct {
	Units *string `json:"units,omitempty"`
	Paper *string `json:"paper,omitempty"`
}

// Colours is the workshop's scheme of cable colours; empty where it is the usual one.
type Colours struct {
	Feed   string `json:"feed,omitempty"`
	Return string `json:"return,omitempty"`
	Signal string `json:"signal,omitempty"`
	House  string `json:"house,omitempty"`
}

// Profile is how the charger is set.
type Profile struct {
	Setting string  `json:"setting,omitempty"`
	Broken  *string `json:"broken,omitempty"`
	Disable *string `json:"disable,omitempty"`
	Fed     *string `json:"fed,omitempty"`
}

// New is an empty document of this version.
func New() Document { return Document{Format: Format, Version: Version} }

// Encode writes the document; the same document always gives the same bytes.
func (d Document) Encode() []byte {
	b, err := json.Marshal(d)
	if err != nil {
		panic(err) // only strings, numbers and pointers to them
	}
	return b
}

// Digest names the document's content.
func (d Document) Digest() string {
	sum := sha256.Sum256(d.Encode())
	return hex.EncodeToString(sum[:8])
}
