package signoff

// What is entered at a proof: a reading, why a gate stays open, what was done at one, and what a drive brought.
const (
	ReadingEntry   = "reading"
	WaiverEntry    = "waiver"
	StatementEntry = "statement"
	TripEntry      = "trip"
)
