//! The constants, each with its unit and where it is from. *Fitted*: chosen within a plausible
//! range so that heaps of practice come out; no publication supports it.

/// First-order rates at their best, of what rots fast, slowly, hardly [1/day]. Order of size: Haug
/// 1993; Mason 2006, Waste Management 26. Values fitted.
pub const RATE_FAST: f64 = 0.20;
/// The same of what rots slowly.
pub const RATE_SLOW: f64 = 0.030;
/// The same of what hardly does.
pub const RATE_RESISTANT: f64 = 0.0014;
/// Cardinal temperatures of decay: least, best, most [°C]. Form: Rosso et al. 1993; on composting Richard
/// and Walker 2006. Ends fitted: a cold heap must be able to start.
pub const WARMTH: [f64; 3] = [-3.0, 58.0, 76.0];
/// The same for lignin: its breakers are mesophilic fungi (Tuomela et al. 2000). Fitted.
pub const WARMTH_RESISTANT: [f64; 3] = [-3.0, 35.0, 60.0];
/// Logistic response to moisture, form Haug 1993, steeper than his: half rate at 44 %.
pub const MOISTURE: [f64; 2] = [24.0, 10.56];
/// Logistic response to free air space, Haug 1993.
pub const AIRINESS: [f64; 2] = [23.675, 3.4945];
/// Available C:N at which half the rate is left, and its power. Fitted.
pub const STARVED: [f64; 2] = [31.0, 4.0];
/// Half saturation with oxygen, 2 % by volume, over that of the air [-], Haug 1993.
pub const HALF_OXYGEN: f64 = 2.0 / 20.95;
/// What is reached of a heap that is never turned [-], and how soon it clumps so far [h]. Fitted.
pub const ACCESS: [f64; 2] = [0.35, 96.0];
/// Microbes at the start [-], and how fast they build up [1/day]. Fitted.
pub const START_UP: [f64; 2] = [0.35, 1.5];
/// Heat of decay with oxygen [MJ/kg O₂], Haug 1993.
pub const HEAT_OF_OXYGEN: f64 = 14.0;
/// Water made of organic matter [kg/kg]; cellulose gives 0.556.
pub const WATER_MADE: f64 = 0.55;
/// Oxygen in dry air [kg/kg].
pub const OXYGEN_IN_AIR: f64 = 0.2315;
/// Heat capacity of organic matter, within Ahn et al. 2009 [MJ/kg K].
pub const CAPACITY_ORGANIC: f64 = 1.3e-3;
/// Heat capacity of minerals [MJ/kg K].
pub const CAPACITY_ASH: f64 = 0.85e-3;
/// Heat capacity of water [MJ/kg K].
pub const CAPACITY_WATER: f64 = 4.186e-3;
/// Heat capacity of dry air [MJ/kg K], ASHRAE psychrometrics.
pub const CAPACITY_AIR: f64 = 1.006e-3;
/// Heat capacity of vapour [MJ/kg K].
pub const CAPACITY_VAPOUR: f64 = 1.86e-3;
/// Latent heat of water at 0 °C [MJ/kg].
pub const LATENT: f64 = 2.501;
/// Conductivity dry, and what water adds [W/m K], within Ahn et al. 2009.
pub const CONDUCTS: [f64; 2] = [0.10, 0.55];
/// Outer surface film in light wind [W/m² K].
pub const FILM: f64 = 12.0;
/// Into the ground [W/m² K], judgement.
pub const INTO_GROUND: f64 = 1.0;
/// By how much it settles [-], and how soon [h]. Fitted.
pub const SETTLES: [f64; 2] = [0.20, 240.0];
/// How far its own weight squeezes it [-], from what load on [kPa], weaker when wet. Idea McCartney and
/// Chen 2001; fitted.
pub const SQUEEZES: [f64; 3] = [0.8, 8.0, 4.0];
/// Densening with decay [-]. Fitted.
pub const DENSENS: f64 = 0.10;
/// Least free air space [-]. Fitted.
pub const LEAST_AIR: f64 = 0.06;
/// Density of organic particles [kg/m³], Haug 1993; Agnew and Leonard 2003.
pub const DENSITY_ORGANIC: f64 = 1600.0;
/// Density of minerals [kg/m³].
pub const DENSITY_ASH: f64 = 2650.0;
/// Density of water [kg/m³].
pub const DENSITY_WATER: f64 = 1000.0;
/// Oxygen diffusing in air at 0 °C [m²/s]; in what is porous by the power 1.5 of its air (Marshall 1959).
pub const DIFFUSES: f64 = 1.78e-5;
/// Permeability at half air [m²]; order of size Richard et al. 2004. Fitted.
pub const PERMEABLE: f64 = 3.8e-8;
/// Viscosity of air [Pa s].
pub const VISCOSITY: f64 = 1.9e-5;
/// Gravity [m/s²].
pub const GRAVITY: f64 = 9.81;
/// Share of the chimney left with shut sides [-]. Fitted.
pub const SHUT_CHIMNEY: f64 = 0.10;
/// Share of a windrow's base that works as a chimney [-]. Fitted.
pub const CREST: f64 = 0.5;
/// Share of the core's exhaust that leaves hot; the rest cools in the top [-]. Fitted.
pub const LEAVES_HOT: f64 = 0.5;
/// Breathing of the open surface [kg/m² h]. Fitted.
pub const BREATHES: f64 = 0.15;
/// What a sheet leaves open of the top [-]. Fitted.
pub const SHEET_OPEN: f64 = 0.35;
/// What a sheet keeps in besides [m² K/W].
pub const SHEET_KEEPS: f64 = 0.1;
/// Effect of air columns [-]. Fitted.
pub const COLUMNS: f64 = 0.35;
/// Thickness of the shell: at most [m], and at most this share of the least side [-].
pub const SHELL: [f64; 2] = [0.20, 0.25];
/// Nitrogen freed with what rots fast, slowly, hardly, relative to the mean: protein goes first. Fitted.
pub const FREES: [f64; 3] = [2.0, 1.0, 0.5];
/// Carbon kept by microbes [-], their C:N (Parnas 1975), and the shut-off of their hunger. Judgement.
pub const MICROBES: [f64; 3] = [0.28, 8.0, 0.05];
/// pH of the water film: at some ammonium, its rise by tenfold, its ends. Fitted.
pub const FILM_PH: [f64; 4] = [8.7, 0.6, 7.0, 9.2];
/// Dissolved share of ammoniacal nitrogen [-]. Fitted.
pub const DISSOLVED: f64 = 0.7;
/// Air over water concentration of ammonia at 25 °C [-], and its slope with temperature [K]; Sander's
/// compilation.
pub const HENRY: [f64; 2] = [6.7e-4, 4200.0];
/// Water activity: 1 − exp(−15 m). Shape only, fitted.
pub const ACTIVITY: f64 = 15.0;
/// Wettest that holds [-]. Fitted.
pub const HOLDS: f64 = 0.78;
/// Drainage of what is wetter [1/h]. Fitted.
pub const DRAINS: f64 = 0.10;
/// Creeping of water between zones [kg/m² h]. Fitted.
pub const CREEPS: f64 = 0.03;
/// Rain that runs off [-]. Fitted.
pub const RUNS_OFF: f64 = 0.25;
/// A turn: warmth lost [-]. Fitted, as all of a turn.
pub const TURN_WARMTH: f64 = 0.30;
/// Of it as vapour [-].
pub const TURN_VAPOUR: f64 = 0.5;
/// Settling undone [-].
pub const TURN_LOOSENS: f64 = 0.6;
/// Access restored [-].
pub const TURN_ACCESS: f64 = 0.9;
/// Free ammonia blown off [-].
pub const TURN_AMMONIA: f64 = 0.5;
/// Mixing of a usual turn [-].
pub const TURN_MIXES: f64 = 0.85;
/// Water poured on top that reaches the core [-].
pub const TOP_TO_CORE: f64 = 0.3;
