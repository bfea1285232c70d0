<?php

declare(strict_types=1);

namespace Wattage\Core\Speech;

/**
 * What tools/speech-model learned from made scenes, with voices, music and noise that no test uses. Made by it; not to be changed by hand.
 */
final class SpeechModel
{
    /** From {@see SpeechFeatures} to a first guess. */
    public const FIRST_UNITS = 28;
    public const FIRST = 'Af+D/1ICNf5d/ur+bP96AOL9bQDI/zf+ofxSAsQB7AL7+qIArPqK/s/4TwS6AKAAywGo/uX/5P2/BMgBVP8SAMz/ff88//j+if91/8f/8gEmDY/+UQDg/Ov8owMO/E3+JQDsA+79mQVI+gr8lPoLAL'
        .'T9FwCZAMEFxgL8/xj/jAiGAzj/CwHIARD/5v0C/cf6j/6E/7gA9ADuAAYA2f5v/on+nvnMAMT/VP2/ABIA2P+B/v8BCwG2AYUAQfpG+73/vgBq/GEC0wENAgX/FgS4+8EAGgCL/BD0AwRqBDcE6AGo'
        .'/LL/rwCCAoQBbQGkACsALQMRBIz72gDEAq4BXf+9AJMALwCbADYBtP4p+rr53P3x+8wCkv9q/Ar8ugF/++EFOvfW/mj/6AFn/BX7ZvbI+3v5/vl6/3X/TP6V/1X/eABr/57/Nv8gDfsA1f9MATcAZf'
        .'+BAS38dgHgADsDQgOQ+3r6pQQyAzEAff+MAtT2pv5h/eIC2/8nAtP8kP3g/vz5CQDl/18E+QKi/hz7SwDY/Pj/LQHRBOIAjf56ANH/VP9NAHgANgBIAcAAIwBAAEoAXABCAHAAcAD+ABT/+gDIAHQA'
        .'xP+9/lEAOwDMACoAlf9u//T/2v/E/+r/2v+I/3QArAAFAaQAcQCBAGcBKf6J/T3+JPzl+0kDOP7+AAEAYf+s/+0Ar/ra//b/cADS/MIBoP7+AskCKwEa/ZYBG/4TABP/kgB2Av37qft//yIB5gGVAf'
        .'gArgBbAnwC6QBg/dr/hv5w/8QBvwFbAYD/PwR0A83/zvuP/d791/Z5/i39cwRYAU0FuQdYAI/9oAT7/nEGevohAVb8oAOmAHj3VAOEALwA4f/2/xEBE/7u+5j7M/xGAVYDRwA1/zYAfP6aAAkC9//L'
        .'/DIAGwLbA8wAAv9m/kX+3v+L/qD8fvzF/vQGswPPBcn9cv/lAYD+KAByBFb87/+n/iEAKP4V/gL+rv8JABv9Of7k/vMABgNWBGcBpgFi/p7/cv9JAXcBRP1B/0z9kfznCGsCKwGo/bLzdwGLArP/tw'
        .'VN/5f9rvweBOz/pwLz/3UAdP9HAIEAawCiAC//xf+E+H0A0f9P/04AegA1AEkBwQAiAD8ASgBcAEIAcgBxAAABDv/8AMoAdADC/7j+UwA8ANAAKQCQ/2r/9P/Y/8L/6v/Z/4j/dACtAAcBpgBzAIMA'
        .'awGn/GoEuQX5/58B+fwd+R38LAAmAbn9agKzAjj9b/3rAL79OQJ0/3T/pAK3/O8DUQDL/Yz7ngTPA1IHVP7r+4kAQACH/2j+QP8+AJ3/6fyd/GoCCgDhAI4AEP7z/l76HP9M/sj/wwHIBID5nv+e/p'
        .'/++P6H9nEEDArfAGkEBv5WAI0FEf9HAXn8YPug/3EFwgAnADf/rf9HACL/CgAGAc//6QFl/EEDeQLoARgBUAEtAWkD0ABVC0v+EPga/m4Bev++AH398/smBWr7wgV09L0AI//k/RgCKAayBRoD9wau'
        .'BasEQv8Q/3v+pv75/h4AS/4i/6kA3/le/1X/iP7O/jT+lwAc/sL/7ABiARP+LP9e/4sBMQRu/TEBiQGC/rrzxgsS/g8A9P9WAbgD0QO4/5cFFQboAiIBNgHuAWr/FgFaAQn+8v2UARcKiPyg/c8Beg'
        .'D5/7X+TPzx/+YBOwCj/m8Cpflv/yP9Cv4eAdL/hP93BIcEuwEj/Hf8EvxRAh8EoACfAtj9nwAeADMA4wAj/0gAPwCDAFQAFv/9BR8BkQA1/zH+ff3V/OD86wDlABv9Hv+/APUAXQCd/QQAu/wGAo7+'
        .'uwWbAwoBnfdF/3L9HQgIAED5tP5g/1AA9gHEAFz+0P7a/7ABlwBu/NcBXwEz/Q3/Of+fAbMBXP9V/78CbQJ9/ub9VPzrAsn/l/8SAfMNYQR1AtL9WwR1/78BlgDk/XAB3vsA/TwAXP82+kr/7P4KAa'
        .'8AXf84ALwA0QFcATb91/6s/kr+Nv9f/yv+Tf2BAjL/jAHFAoj+agIV/2oCfgIJAowDDQJ4+twCL//6/04CnwO8AFP+FACr/asAtPhbAPEIqvzqA34Bfv8F9/AEBPymA4sARf6x/5T9HP2M/Rb9lf3q'
        .'/xkCw/5f/sr8mPbKBNX+IfsSBdUElQWK/wMHrAS7/3/9Xv8AA67/iP/Q/mb+xP4A/5H9k/5a/hD/H/7g/kz9Pv1cAF8CM/93/gn+tv5gAfAAMAKs/1/+QAEYAaUCOwHD/8YA/QPJ/Xb7ff5kApr92Q'
        .'GIABj9dgRR/HICEf0d+3//1ACuAfkAHgBw/z0CFgMcBHz4Yv9bAM3/jv5G/jj5fAKC/kkBnv5nANMADQA5AjgAE/5m/CQCSQBU/vT9jv/V/sMDnv16/0sC+wB3AuwAEAdV/+QBvf5RAHUA1f7P/mMB'
        .'C/6t/OD+Xf/l/rwAQQDL/3/98AOdAwkD1AJt+fcD5AgZAYMEvP51FKX6zvrRApr90/7HANr/t/7NAKkCUv+P/1P+ZAAm/5UBSP+S/xoAigLs/4MBxftb/An+lf9L/6H/7vvPAgIB2P/X/6oAKQG6Bh'
        .'wB/f3dAZEADv8F/A3+gfutABb+M/1hAGn/EgAm/iv+NP/2/+7/3wEPBdL/YAE/AY7/Nv5ZABECGQBIAYX6SP+bAGYAWwEeBB0Czf0B/tIAgwRcAwIFfwARCc4ERP/1//X/gAGMAIYBef+q/MkAPP/l'
        .'AFwAJQOPAH0AUgCU/+7/4P+wAgwC5QGw/OsA6f7kAbz/Q//u/hv8kQH0AWQDtAWM+dD/Fv7EAY392v0BBFv6dgVo/WMBNQAK/rUCs/jn/AH77P9W/3X7GwCa/8b+f/3lAUsAFv1k/rUBDP9eAgP+EP'
        .'/s+z79ZQHlACj/mfz+/msCZwAF/R79pAQkAFH9S/0BCXEFL/y6Cez8wv+i/h0G4gNNCBMGGwEzBMP+MgHc/28BJ//A/vn+iP4y/yz6hP8vAK8As/+H/8v/t/4//97/wP+2/6T/vv+P/5D/Af/wAAX/'
        .'N/+M/z4ARgGu/8X/Mf/X/24AlQAMACcAPQAWACYAeACM/1T/+f5b/47/fv+X/oH5ZwO1BZf0vflz+cMGwQUH/QP5CfkeBfoEqwtn9bcH2wYiBHIGq/KoA7r7lwkB/Cv4KPsCBc8GXfk=';

    /** From the guesses around a moment to the second. */
    public const SECOND_UNITS = 16;
    public const SECOND = '0v9hALj/CgCr/6sA8gB+AGX+L/wY/h0BAgGTAI7/+P8CAGoAkf/cAggClwHnAVT/kv7/+3T67v3P/QcCWQNUA/UCdwj3ACYBPgBW/1P/TP4B/iL+Z/9rAKX/7v8xAID/zP9F/3v/+//EAK79qAEG/P'
        .'8AyfzF/0r+9/67+e4AFft6//7/KP1e9+b/AQBAALL//v+5/2kAZwBWAfMCHQFLALsA7v9UACMAvf+H/9b/5P+uAKX/mQC9/3cAkQF7AGj/tQA4/6b/nf+1/lUMNf9//8IAAgENAJoAoP+t/wcAJ/5h'
        .'/+b/SAAn/9D/xf+8AXECSv5SAE/9GwFZ/V0AA/zw/jX7SwC7+4cAbP3uAHf/V/yI/Yz/nwGkATAB//96/6v/gwDy/1z/qP6K/5P/dQA1AIT+UP9k/6YAYf42/+UA8P5TAcf8DALh/okB+QFVAF8Cz/'
        .'92+QIA5f9IAD//8/8v/y0BrgMEAq8Axv4w/1kAcQDeACH/aAD9/8T/t/6wAf4BPQMHAeoBfwAA/vD+yf16/nX/9v9BAEj1af+YAHYAqv5C/nn8/v1o/pIANQInAD8AxwA8AjkB/f8b/68Axf9l/a8A'
        .'ev4hAJr/AABZAvYAsQEgAYgBcQD9/4wAvv2DACwBtgJrApcBNAB1/13/8f/p/kD/pv/t/j3/4f8kAF//XQBnAH4BwP6YAHD+pwAO/9z95v/L//j+gABJ/3UAWv+sAA0Avf+t////FQBrAGsAx/8+AC'
        .'AC3QL2AcQAEQDq/8L/5f+j/xAAbQACAO7/CwDQ/2v/8wDO/+L/WgCfAIgAZ/8NAC7w5f+k//H/ngB9//v+cf+K/4oAr/7G/7MAlgFpAZcB9/7J/5kAcwDPALb+gP+3/xT+y/8e/NL/Tv9pAFkCiv8C'
        .'BYf+kP4i/uMA2ABlACX/FwDwALEAFwEjAhUBgwB3/5X+w/3r+6f+ff/uAAX/wgAw/0T/IwDwADYCfgCGATQABwBkAK3+6v7p++r/RQB+ACUA4/48AWMB1AEYA+YDFgIRAQwARQCQ/rn75Po+/7f/hv'
        .'4G/owA8v0gABj/yv5WAP3+rAAFAFAA3wDWAMoCDwIgAQcAd/8vAJr/4P5a//j/+v8B/5H/pf8QAGUANwDb//8AaAJZAzYAqAIHAHoA1wBn+3UCLP1vAJj9z/5RAsv+bvlE/8n/iAEYAAEAXgCH/8D/'
        .'Xv5I/Q7+Uf57/gEAvgCCADMALgEcAFYBGgFRAEIBkv8NAev8zv+t/ob/BAAjASMC/gF4AMEAYP/+//D/SgBnAL8AWABmAV4B0wDAAMMAJwBR//r82fwG/YL+if+7/9L/nQBe/4QAeQHHAdUALgJk/x'
        .'MD2f73/wf/ZwBY/hz/yACIAP3+M/+7/4UAWQBLAKf//P+e/xQBzQBNAC//lP+iBNb+lQKl/0v+5wDG+OcCofs7AP3/2/35AxX+H/s/+5P6ywU5/tv9cwN+/XkDSgfHAn39UAGI/Wj+p/1L/Vz+';
}
