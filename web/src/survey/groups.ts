/** Group is a part of the survey: what is asked there, and which checks it settles. */
export interface Group {
  id: string;
  title: string;
  says: string;
  fields: string[];
  /** Groups of checks that are shown beside it. */
  checks: string[];
  /** Parts of the section whose folded answers, as measured, are asked here too. */
  parts?: string[];
}

/** The groups, in the order in which one walks round a vehicle. */
export const groups: Group[] = [
  {
    id: "vehicle",
    title: "Vehicle",
    says: "What the vehicle is, and what speaks for or against steady regulation.",
    fields: ["vehicle.model", "vehicle.kind", "vehicle.systemVolts", "vehicle.year", "vehicle.engine", "vehicle.stopStart", "vehicle.euro56", "vehicle.winch", "vehicle.frame", "vehicle.bonded"],
    checks: [],
  },
  {
    id: "alternator",
    title: "Alternator",
    says: "The label, how it is regulated, and how that is known. A test beats the year.",
    fields: ["alternator.machine", "alternator.label", "alternator.count", "alternator.regulation", "alternator.knownBy", "alternator.volts", "alternator.senses", "alternator.excites", "vehicle.loadA", "vehicle.secondRoom"],
    checks: [],
    parts: ["alternator"],
  },
  {
    id: "start",
    title: "Start battery",
    says: "The start battery must never be left unable to crank.",
    fields: ["startBattery.chemistry", "startBattery.capacityAh", "startBattery.place", "startBattery.ageYears", "startBattery.restV", "startBattery.crankA", "vehicle.sensor", "vehicle.stud"],
    checks: ["rest"],
    parts: ["start"],
  },
  {
    id: "needs",
    title: "Needs",
    says: "What is used, and what puts it back.",
    fields: ["use.dailyAh", "use.drivenHours", "use.idleHours", "use.parkedDays", "use.mainsAh", "day.solarW", "day.sunHours"],
    checks: [],
  },
  {
    id: "aux",
    title: "Aux battery",
    says: "What the aux battery is and where it sits.",
    fields: ["aux.chemistry", "aux.capacityAh", "aux.volts", "aux.place", "aux.restV", "aux.count", "aux.same", "aux.feed", "aux.linkM"],
    checks: ["rest", "bank", "join"],
    parts: ["aux"],
  },
  {
    id: "fit",
    title: "Room for the battery",
    says: "The opening as well as the recess. A dummy of cardboard settles what a tape does not.",
    fields: ["fit.lengthMM", "fit.widthMM", "fit.heightMM", "fit.recessLengthMM", "fit.recessWidthMM", "fit.recessHeightMM", "fit.openingLengthMM", "fit.openingWidthMM", "fit.aboveMM", "fit.covered"],
    checks: ["fit"],
  },
  {
    id: "place",
    title: "Coupling's place",
    says: "Heat, gas, spray, moving parts; and whether anybody will see its lamp.",
    fields: [
      "placing.exhaust", "placing.spray", "placing.gas", "placing.moving", "placing.terminals", "placing.visible", "placing.access", "placing.housed", "placing.ground",
      "placing.lengthMM", "placing.widthMM", "placing.heightMM", "placing.vented", "bays.startC", "bays.auxC",
    ],
    checks: ["place"],
  },
  {
    id: "drilling",
    title: "Before drilling",
    says: "What must not be hit, what the vehicle may still carry, and what holds the battery in a crash. The local code decides.",
    fields: [
      "drilling.tank", "drilling.airbags", "drilling.looms", "drilling.lines", "drilling.exhaust", "drilling.class", "drilling.batteryKg", "drilling.otherKg", "drilling.spareKg",
      "drilling.bolts", "drilling.thread", "drilling.into",
    ],
    checks: ["drill"],
  },
  {
    id: "routes",
    title: "Routes",
    says: "With a string along the real route, not the straight line, and a tenth more for slack.",
    fields: ["routes.startM", "routes.auxM", "routes.earthM", "routes.triggerM", "bays.startLay", "bays.auxLay", "cable.system", "cable.insulation", "cable.sizes", "cable.lugs"],
    checks: [],
    parts: ["c1", "c2"],
  },
  {
    id: "feed",
    title: "Feed point",
    says: "What tells the coupling that the engine runs. Accessory, ignition and running are different facts; airbag, brake, steering and engine-management circuits are not feed points.",
    fields: ["day.trigger"],
    checks: [],
  },
  {
    id: "wants",
    title: "Wishes",
    says: "What the customer asks for besides charging.",
    fields: ["wants.emergencyStart", "wants.idling", "wants.budget", "wants.feedA", "solar.through", "solar.priority"],
    checks: [],
  },
  {
    id: "arranged",
    title: "How the run is put together",
    says: "Only where the run does not go straight from the start battery to the aux battery: where the run begins, what comes out, what hangs on the run, who works the coupling.",
    fields: [
      "arranged.from", "arranged.fromA", "arranged.fromH", "arranged.fromLive", "arranged.fuses", "arranged.plug", "arranged.frame", "arranged.ahead", "arranged.besideA",
      "arranged.sunAt", "arranged.control", "arranged.interlock", "arranged.lamp",
    ],
    checks: ["place"],
  },
  {
    id: "charging",
    title: "Other chargers, monitor",
    says: "What else charges the aux battery, what counts it, and how each is set: they have to agree with the battery and with each other.",
    fields: [
      "mains.outputA", "mains.generatorW", "mains.absorptionV", "mains.floatV", "mains.compensated", "mains.probe", "mains.disable", "solar.absorptionV", "solar.floatV",
      "solar.compensated", "solar.probe", "solar.disable", "extras.monitor", "monitor.capacityAh", "monitor.fullV", "monitor.tailPct", "monitor.efficiency",
    ],
    checks: ["charging"],
  },
  {
    id: "beliefs",
    title: "Taken for granted",
    says: "What the customer, or the shop, is sure of. Tick what was said; beside it stands what holds on this job.",
    fields: [],
    checks: [],
  },
  { id: "found", title: "As found", says: "What a previous owner or the factory left, wire by wire.", fields: ["have.coupling", "have.couplingA"], checks: [] },
];
