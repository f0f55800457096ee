package settings

import "net/url"

// Meter is an instrument on the workshop's network, read by lines over TCP.
type Meter struct {
	Name    string `json:"name" minLength:"1" maxLength:"60"`
	Address string `json:"address" minLength:"3" maxLength:"100" doc:"Host and port, such as 192.168.1.40:5025"`
	Speaks  Speaks `json:"speaks" enum:"scpi,telemetry" doc:"scpi: a meter; telemetry: a charger that sends lines of JSON"`
}

// Speaks is what an instrument is spoken to in.
type Speaks string

// A meter answers to SCPI-99; a charger's telemetry is lines of JSON in the format of Telemetry.
const (
	SCPI         Speaks = "scpi"
	TelemetryOut Speaks = "telemetry"
)

// at is where an instrument is: host and port, empty where its address names none.
func (m Meter) at() (host, port string) {
	u, err := url.Parse("tcp://" + m.Address)
	if err != nil || u.Host != m.Address || u.User != nil {
		return "", ""
	}
	return u.Hostname(), u.Port()
}
