//! Every operation as every role and as a stranger, and by the ids of another farm.

mod support;

use serde_json::{Value, json};
use support::described::api;
use support::people::{Place, body_of, code, kind};
use support::{Asked, text};
use zymarch_core::people::{Deed, Role};

/// What an operation is for; none for those at the door.
fn deed_of(operation: &str) -> Option<Deed> {
    Some(match operation {
        "sign_in_door" | "sign_in" | "people_first" => return None,
        // A calendar is known by its address, which `judged.rs` tries.
        "calendar_fetch" => return None,
        // Probes are known by what they hold, which `probes.rs` tries.
        "probe_report" => return None,
        "about_about"
        | "about_limits"
        | "about_start"
        | "me_get"
        | "sign_out"
        | "passphrase_set"
        | "person_list"
        | "person_code"
        | "person_code_withdraw"
        | "device_cut_off"
        | "material_list"
        | "material_names"
        | "material_check"
        | "material_file"
        | "site_list"
        | "measure_list"
        | "measure_volume"
        | "lot_list"
        | "lot_history"
        | "field_test_list"
        | "field_test_reckon"
        | "sorted_out_list"
        | "scale_read"
        | "mix_sum"
        | "mix_working"
        | "mix_confidence"
        | "formulate_correct"
        | "formulate_thumb"
        | "tend_heat"
        | "tend_hygiene"
        | "tend_diagnose"
        | "finish_apply"
        | "heap_harvest_outlook"
        | "lot_chain"
        | "compost_chain"
        | "ground_chain"
        | "compost_list"
        | "ground_list"
        | "heap_compare"
        | "mix_say"
        | "bench_ask"
        | "formulate_ask"
        | "choices_ask"
        | "method_suit"
        | "place_ask"
        | "prepare_ask"
        | "starter_list"
        | "method_list"
        | "batch_list"
        | "batch_get"
        | "heap_list"
        | "heap_ahead"
        | "heap_tended"
        | "heap_photo"
        | "heap_log_table"
        | "heap_trace"
        | "heap_strips"
        | "heap_heat"
        | "heap_probes"
        | "heap_judgement"
        | "heap_calendar_file"
        | "site_today"
        | "site_rules"
        | "site_calendar_file"
        | "site_calendar"
        | "site_calendar_make"
        | "site_calendar_end"
        | "site_probes"
        | "heap_get" => Deed::Look,
        "measure_create" | "measure_change" | "measure_remove" | "measure_restore" | "lot_create"
        | "lot_change" | "lot_remove" | "lot_restore" | "lot_happened" | "lot_event_undo"
        | "field_test_create" | "field_test_change" | "field_test_remove" | "field_test_restore"
        | "sorted_out_create" | "sorted_out_remove" | "sorted_out_restore" | "scale_hang"
        | "batch_create" | "batch_change" | "batch_remove" | "batch_restore" | "batch_take"
        | "batch_give_back" | "heap_begin" | "heap_lay" | "heap_plan_anew" | "heap_end" | "heap_undo"
        | "heap_remove" | "heap_restore" | "heap_take" | "heap_give_back" | "heap_built" | "heap_tend"
        | "heap_harvest" | "compost_remove" | "compost_happened" | "compost_used" | "compost_found"
        | "compost_take_back" | "ground_create" | "ground_change" | "ground_remove" | "ground_restore"
        | "ground_found" | "ground_take_back" | "batch_tick" | "heap_take_back" | "heap_bring_back"
        | "heap_import_look" | "heap_import" => Deed::Work,
        "site_create"
        | "site_change"
        | "site_remove"
        | "site_restore"
        | "heap_add_probe"
        | "heap_end_probe"
        | "heap_take_out_probe"
        | "heap_simulated_rod"
        | "site_add_probe"
        | "site_end_probe"
        | "site_take_out_probe"
        | "site_set_rules"
        | "site_simulated_station" => Deed::Keep,
        "material_create" | "material_change" | "material_remove" | "material_restore"
        | "material_import" | "method_copy" | "method_change" | "method_remove" | "method_restore" => {
            Deed::Book
        }
        "network_get" | "person_create" | "person_change" | "person_remove" | "person_restore" => Deed::LetIn,
        "security_list" => Deed::Govern,
        other => panic!("say who may do {other}"),
    })
}

#[test]
fn every_operation_is_for_those_it_is_for_and_nobody_else() {
    let place = Place::new();
    let (mut seen, all) = (0, &api().operations);
    let before = place.everything();
    // Those who may not, first: nothing of theirs leaves a trace.
    for operation in all {
        let Some(deed) = deed_of(&operation.id) else { continue };
        let stranger = place.as_("nobody", place.asked(operation));
        assert_eq!((stranger.status, code(&stranger)), (401, "sign-in-first".into()), "{operation:?}");
        for &role in Role::ALL.iter().filter(|role| !role.may(deed)) {
            let answer = place.as_(role.as_str(), place.asked(operation));
            assert_eq!(code(&answer), "not-your-role", "{role:?} {operation:?}: {answer:?}");
            assert_eq!(answer.status, 403);
            seen += 1;
        }
    }
    assert_eq!(place.everything(), before);
    assert!(seen > 60, "{seen}");
    for operation in all {
        let Some(deed) = deed_of(&operation.id) else { continue };
        for &role in Role::ALL.iter().filter(|role| role.may(deed)) {
            // What ends a session is another test's.
            if ["sign_out", "passphrase_set", "device_cut_off"].contains(&operation.id.as_str()) {
                continue;
            }
            let answer = place.as_(role.as_str(), place.asked(operation));
            let refused = ["sign-in-first", "not-your-role"].contains(&code(&answer).as_str());
            assert!(!refused && answer.status < 500, "{role:?} {operation:?}: {answer:?}");
        }
    }
}

#[test]
fn another_farms_ids_look_like_ids_that_never_were() {
    let place = Place::new();
    let before = place.everything();
    let mut seen = 0;
    for operation in &api().operations {
        let is_of_a_site = !kind(&operation.path).is_empty() && operation.path.contains('{');
        if !is_of_a_site && operation.id != "bench_ask" {
            continue;
        }
        for who in ["elsewhere", "other trainer"] {
            let theirs = place.as_(who, place.asked(operation));
            let refused =
                if deed_of(&operation.id) == Some(Deed::Keep) && who == "elsewhere" { 403 } else { 404 };
            assert_eq!(theirs.status, refused, "{who} {operation:?}: {theirs:?}");
            for id in place.ids.values() {
                assert!(!theirs.text.contains(id.as_str()), "{operation:?}: {theirs:?}");
            }
            seen += 1;
        }
    }
    assert!(seen > 80, "{seen}");
    assert_eq!(place.everything(), before);
}

#[test]
fn nothing_is_reached_through_an_id_in_a_body() {
    let place = Place::new();
    let (there, lot) = (place.ids["other site"].clone(), place.ids["lot"].clone());
    let ask =
        |method: &str, path: &str, body: &Value| place.as_("elsewhere", Asked::new(method, path).json(body));
    // A lot of another site in a recipe: it could be taken from.
    let mut batch = body_of("batch_create");
    batch["items"][0]["lot_id"] = json!(lot);
    let answer = ask("POST", &format!("/api/sites/{there}/batches"), &batch);
    assert_eq!((answer.status, code(&answer)), (422, "no-such-lot".into()), "{answer:?}");
    assert_eq!(answer.fields(), ["items[0].lot_id"]);
    // A new record that takes the id of another's.
    let answer = ask("POST", &format!("/api/sites/{there}/lots?id={lot}"), &body_of("lot_create"));
    assert_eq!(answer.status, 404, "{answer:?}");
    // Another's container.
    let mut theirs = body_of("lot_create");
    theirs["unit"] = json!("measure");
    theirs["measure_id"] = json!(place.ids["measure"]);
    let answer = ask("POST", &format!("/api/sites/{there}/lots"), &theirs);
    assert_eq!((answer.status, code(&answer)), (422, "no-such-measure".into()), "{answer:?}");
    // A page that was open on another site opens one of their own.
    let start =
        place.as_("elsewhere", Asked::new("GET", &format!("/api/start?site={}", place.ids["site"]))).json();
    assert_eq!(text(&start["open"]["site"]["id"]), there);
    assert_eq!(start["sites"].as_array().map(Vec::len), Some(1));
    assert_eq!(start["me"]["role"], "worker");
    // Nor does the right site lead to another's lot by name.
    let mut bench = body_of("bench_ask");
    bench["site"] = json!(there);
    bench["lots"] = json!([lot, null]);
    let answer = ask("POST", "/api/bench", &bench);
    assert!(!answer.text.contains(&lot), "{answer:?}");
    // Heaps beside each other are each of a site that they see.
    let answer = ask("POST", "/api/compare", &json!({"heaps": [place.ids["heap"]]}));
    assert_eq!((answer.status, code(&answer)), (404, "not-found".into()), "{answer:?}");
    // Compost of theirs does not go on another's bed.
    let batch = ask("POST", &format!("/api/sites/{there}/batches"), &body_of("batch_create"));
    let at = json!({"at": "2026-01-10T08:00:00Z"});
    let heap = ask("POST", &format!("/api/batches/{}/built", text(&batch.json()["id"])), &at);
    let taken = json!({"compost": {"amount": 20, "unit": "litre"}, "is_last": false});
    let compost = ask("POST", &format!("/api/heaps/{}/harvest", text(&heap.json()["id"])), &taken);
    let used = json!({"ground": place.ids["ground"], "use": {"kind": "pits", "count": 1, "litres_each": 2}});
    let answer = ask("POST", &format!("/api/compost/{}/uses", text(&compost.json()["id"])), &used);
    assert_eq!((answer.status, code(&answer)), (422, "no-such-ground".into()), "{answer:?}");
}
