/** Made from the core by php tools/screen-constants.php; a test says when it is out of date. dB, seconds and samples, as the core has them. */
export const CORE = {
    "rate": 48000,
    "segmentSeconds": 2,
    "film": {
        "perRow": 10,
        "seconds": 2,
        "width": 96,
        "height": 54
    },
    "longestName": 200,
    "longestMix": 8294400000,
    "longestRamp": 5760000,
    "dip": [
        -96,
        48
    ],
    "highest": {
        "clip": 24,
        "fader": 12
    },
    "faderBottom": -60,
    "stems": [
        "speech",
        "music",
        "ambience",
        "effects"
    ],
    "hues": [
        "moss",
        "brick",
        "slate",
        "plum",
        "ochre",
        "teal"
    ],
    "frameRates": {
        "23.976": {
            "fraction": [
                24000,
                1001
            ],
            "nominal": 24,
            "drops": false
        },
        "24": {
            "fraction": [
                24,
                1
            ],
            "nominal": 24,
            "drops": false
        },
        "25": {
            "fraction": [
                25,
                1
            ],
            "nominal": 25,
            "drops": false
        },
        "29.97df": {
            "fraction": [
                30000,
                1001
            ],
            "nominal": 30,
            "drops": true
        },
        "29.97": {
            "fraction": [
                30000,
                1001
            ],
            "nominal": 30,
            "drops": false
        },
        "30": {
            "fraction": [
                30,
                1
            ],
            "nominal": 30,
            "drops": false
        },
        "50": {
            "fraction": [
                50,
                1
            ],
            "nominal": 50,
            "drops": false
        },
        "59.94": {
            "fraction": [
                60000,
                1001
            ],
            "nominal": 60,
            "drops": false
        },
        "60": {
            "fraction": [
                60,
                1
            ],
            "nominal": 60,
            "drops": false
        }
    },
    "aim": {
        "clearance": [
            3,
            40
        ],
        "sensitivity": [
            3,
            30
        ],
        "usual": {
            "clearance": 15,
            "sensitivity": 10,
            "loudness": -23,
            "truePeak": -1,
            "clarity": 75,
            "room": "quiet"
        },
        "rooms": {
            "quiet": "a quiet room",
            "phone": "a telephone\u2019s loudspeaker",
            "kitchen": "a kitchen",
            "car": "a car",
            "hearing": "a mild hearing loss"
        },
        "zones": {
            "speech": {
                "low": -26,
                "high": -14
            },
            "music": {
                "high": -14
            },
            "ambience": {
                "high": -14
            },
            "effects": {
                "high": -14
            }
        }
    },
    "filters": {
        "speechBand": [
            {
                "kind": "peaking",
                "hertz": 900,
                "q": 1.2,
                "db": -24
            },
            {
                "kind": "peaking",
                "hertz": 2250,
                "q": 1.2,
                "db": -24
            }
        ],
        "lowCut": [
            20,
            300
        ],
        "tone": {
            "hertz": [
                40,
                16000
            ],
            "most": 6,
            "usual": [
                180,
                500,
                2000,
                5000
            ]
        }
    },
    "duck": {
        "depth": [
            -60,
            -0.5
        ],
        "longest": 10,
        "presets": [
            {
                "name": "Interview",
                "depth": -12,
                "toClarity": false,
                "timing": {
                    "lead": 0.1,
                    "fall": 0.4,
                    "rise": 0.9,
                    "hold": 0.3,
                    "bridge": 0.8,
                    "ignore": 0.15
                }
            },
            {
                "name": "Podcast",
                "depth": null,
                "toClarity": false,
                "timing": {
                    "lead": 0.15,
                    "fall": 0.3,
                    "rise": 1.2,
                    "hold": 0.5,
                    "bridge": 1.5,
                    "ignore": 0.2
                }
            },
            {
                "name": "Lively",
                "depth": -9,
                "toClarity": false,
                "timing": {
                    "lead": 0.05,
                    "fall": 0.15,
                    "rise": 0.4,
                    "hold": 0.1,
                    "bridge": 0.4,
                    "ignore": 0.1
                }
            },
            {
                "name": "By band",
                "depth": null,
                "toClarity": true,
                "timing": {
                    "lead": 0.1,
                    "fall": 0.3,
                    "rise": 1,
                    "hold": 0.3,
                    "bridge": 1,
                    "ignore": 0.15
                }
            },
            {
                "name": "Gentle",
                "depth": -8,
                "toClarity": false,
                "timing": {
                    "lead": 0.2,
                    "fall": 0.9,
                    "rise": 2,
                    "hold": 0.6,
                    "bridge": 1.5,
                    "ignore": 0.25
                }
            }
        ]
    },
    "steady": {
        "window": [
            0.5,
            10
        ],
        "up": [
            0,
            24
        ],
        "down": [
            0,
            60
        ],
        "tolerance": [
            0.1,
            6
        ],
        "usual": {
            "window": 3,
            "up": 9,
            "down": 12,
            "tolerance": 0.5,
            "ceiling": -3
        },
        "hush": 6
    },
    "average": {
        "asked": [
            -60,
            0
        ],
        "usual": {
            "speech": -20,
            "music": -30,
            "ambience": -30,
            "effects": -30
        }
    },
    "ride": {
        "tolerance": [
            0,
            6
        ],
        "spacing": [
            0,
            0.5
        ],
        "glide": [
            0,
            5
        ],
        "usual": {
            "tolerance": 0.25,
            "spacing": 0.1,
            "glide": 0.2
        }
    }
} as const;
