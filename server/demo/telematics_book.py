"""What the demo's machines send by modem: most agree with their meters, one runs ahead, one sends what cannot be."""

from lumvek_core.simulators.telematics import Sent

SENT = {
    "TH6-2207": Sent(2143.5, "h"),
    "TH4-1180": Sent(3870, "h"),
    "D12-0417": Sent(2860, "ha"),
    "CV90-0012": Sent(30500, "ha"),
}
