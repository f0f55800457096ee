package job

import "strings"

// FittedPart is a row of what was really fitted, by what its maker marked on it: so that a recall finds the
// vehicle.
type FittedPart struct {
	What   string `json:"what,omitempty"`
	Serial string `json:"serial,omitempty"`
	Lot    string `json:"lot,omitempty"`
}

// fittedFields are those of its rows.
var fittedFields = []Field{
	{Path: "fitted.*.what", Label: "Fitted", Kind: Text, Max: 80, Example: "charger, 40 A"},
	{Path: "fitted.*.serial", Label: "Serial number", Kind: Text, Max: 60},
	{Path: "fitted.*.lot", Label: "Lot or date code", Kind: Text, Max: 60},
}

// Marks are the numbers of what was fitted, to be found by.
func (d Document) Marks() string {
	var list []string
	for _, row := range Rows(d.Fitted) {
		list = append(list, row.Of.Serial, row.Of.Lot)
	}
	return strings.Join(list, " ")
}
